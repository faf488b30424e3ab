import "@fontsource-variable/fraunces";
import "@fontsource-variable/fraunces/wght-italic.css";
import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import "./ui/tokens.css";
import { use, type ReactNode } from "react";
import { Links, Meta, Outlet, Scripts, useRouteError } from "react-router";
import { NonceContext } from "./shell/nonce";
import { ErrorPage } from "./shell/ErrorPage";
import { KeepScroll } from "./shell/KeepScroll";
import { NoticeBoard } from "./shell/NoticeBoard";

/** Chooses the theme before the first paint, so that the night theme never flashes white. */
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
        <link rel="icon" href="/favicon.ico" sizes="32x32" />
        <link rel="icon" href="/moss.svg" type="image/svg+xml" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <KeepScroll nonce={nonce} />
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
  return <ErrorPage error={useRouteError()} />;
}
