import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { useStore } from "zustand";
import { useStored } from "../storage/context";
import { isUnread } from "../storage/status";

const WORDS = {
  slow: {
    title: "Waiting for the browser's storage",
    text: "This kit opens as soon as its storage can be read.",
  },
  none: {
    title: "No storage to look in",
    text: "This browser keeps no storage here, so this kit cannot be looked for. Allow storage for this page, or read the kit from a file on the shelf.",
  },
} as const;

/** The page of a kit while the browser's storage cannot be read; it opens the kit as soon as it can. */
export function WaitForStorage() {
  const { storage } = useStored();
  const { revalidate } = useRevalidator();
  const isReady = useStore(storage, state => !isUnread(state));
  useEffect(() => {
    if (isReady) void revalidate();
  }, [isReady, revalidate]);
  const isNone = useStore(storage, state => state.trouble === "none");
  const { title, text } = WORDS[isNone ? "none" : "slow"];
  return (
    <main
      className="mx-auto flex min-h-[calc(100dvh-var(--notices-px))] max-w-xl flex-col justify-center gap-4 p-8"
      aria-busy={!isNone}
    >
      <h1 className="font-serif text-3xl">{title}</h1>
      <p className="text-soft">{text}</p>
      <p>
        <a className="text-moss underline" href="/">
          Back to the shelf
        </a>
      </p>
    </main>
  );
}
