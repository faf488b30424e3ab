import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { useStore } from "zustand";
import { useStored } from "../storage/context";
import { isUnread, type StorageTrouble } from "../storage/status";

const WAITING = {
  title: "Waiting for the browser's storage",
  text: "This kit opens as soon as its storage can be read.",
};
const NO_STORAGE = {
  title: "No storage to look in",
  text: "This browser keeps no storage here, so this kit cannot be looked for. Allow storage for this page, or read the kit from a file on the shelf.",
};
const WORDS: Partial<Record<StorageTrouble, typeof WAITING>> = {
  none: NO_STORAGE,
  newer: {
    title: "A newer Moss Tap keeps this kit",
    text: "It has taken over this browser's storage, which this older page cannot read. Load the page again to get the newer one.",
  },
  damaged: {
    title: "A part of the storage is missing",
    text: "This kit cannot be looked for. Read it from a file on the shelf; to have a whole storage again, delete this site's data in the browser.",
  },
};

/** The page of a kit while the browser's storage cannot be read; it opens the kit as soon as it can. */
export function WaitForStorage() {
  const { storage } = useStored();
  const { revalidate } = useRevalidator();
  const isReady = useStore(storage, state => !isUnread(state));
  useEffect(() => {
    if (isReady) void revalidate();
  }, [isReady, revalidate]);
  const trouble = useStore(storage, state => state.trouble);
  const { title, text } = (trouble && WORDS[trouble]) ?? WAITING;
  return (
    <main
      className="mx-auto flex min-h-[calc(100dvh-var(--notices-px))] max-w-xl flex-col justify-center gap-4 p-8"
      aria-busy={trouble === "slow"}
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
