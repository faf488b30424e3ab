import { isRouteErrorResponse } from "react-router";

/** The page shown after an error: its cause, and a link home. */
export function ErrorPage({ error }: { error: unknown }) {
  const isMissing = isRouteErrorResponse(error) && error.status === 404;
  const detail = isRouteErrorResponse(error)
    ? String(error.data ?? error.statusText)
    : error instanceof Error
      ? error.message
      : "";
  return (
    <main className="mx-auto flex min-h-[calc(100dvh-var(--notices-px))] max-w-xl flex-col justify-center gap-4 p-8">
      <h1 className="font-serif text-3xl">{isMissing ? "Nothing grows here" : "Something broke"}</h1>
      <p className="break-words text-soft">
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
