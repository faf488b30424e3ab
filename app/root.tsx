import "@fontsource-variable/fraunces";
import "@fontsource-variable/fraunces/wght-italic.css";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import "./ui/tokens.css";
import { use, type ReactNode } from "react";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useRouteError,
} from "react-router";
import { NonceContext } from "./shell/nonce";
import { NoticeBoard } from "./shell/NoticeBoard";

/** Chooses the theme before the first paint, so that night never flashes white. */
const THEME_SCRIPT = `try{var t=localStorage.getItem("moss-tap-theme");if(t)document.documentElement.dataset.theme=t}catch(e){document.documentElement.dataset.theme=""}`;

export function meta() {
  return [{ title: "Moss Tap" }, { name: "description", content: "A workbench for timing-based input." }];
}

export function Layout({ children }: { children: ReactNode }) {
  const nonce = use(NonceContext);
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/moss.svg" type="image/svg+xml" />
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root() {
  return (
    <>
      <Outlet />
      <NoticeBoard />
    </>
  );
}

export function ErrorBoundary() {
  const error = useRouteError();
  const isMissing = isRouteErrorResponse(error) && error.status === 404;
  const detail = isRouteErrorResponse(error)
    ? String(error.data ?? error.statusText)
    : error instanceof Error
      ? error.message
      : "";
  return (
    <main className="mx-auto flex min-h-dvh max-w-xl flex-col justify-center gap-4 p-8">
      <h1 className="font-serif text-3xl">{isMissing ? "Nothing grows here" : "Something broke"}</h1>
      <p className="text-soft">
        {detail || "The page could not be shown. Your kits are kept in this browser."}
      </p>
      <p>
        <a className="text-moss underline" href="/">
          Back to the shelf
        </a>
      </p>
    </main>
  );
}
