import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { useStore } from "zustand";
import { useStored } from "../storage/context";
import { isUnread } from "../storage/status";

/** The page of a kit while the browser's storage cannot be read; it opens the kit as soon as it can. */
export function WaitForStorage() {
  const { storage } = useStored();
  const { revalidate } = useRevalidator();
  const isReady = useStore(storage, state => !isUnread(state));
  useEffect(() => {
    if (isReady) void revalidate();
  }, [isReady, revalidate]);
  return (
    <main className="mx-auto flex min-h-dvh max-w-xl flex-col justify-center gap-4 p-8" aria-busy="true">
      <h1 className="font-serif text-3xl">Waiting for the browser's storage</h1>
      <p className="text-soft">This kit opens as soon as its storage can be read.</p>
      <p>
        <a className="text-moss underline" href="/">
          Back to the shelf
        </a>
      </p>
    </main>
  );
}
