import { focusPart } from "./pageParts";

const LINKS = [
  ["To the view", "main"],
  ["To the tape", "section[aria-label=Tape]"],
] as const;

/** Links past the header, shown while they have the focus. */
export function SkipLinks() {
  return (
    <p className="absolute top-1 left-1 z-40 flex gap-1">
      {LINKS.map(([words, where]) => (
        <button
          key={words}
          type="button"
          className="sr-only focus:not-sr-only focus:rounded-stone focus:border-2 focus:border-ink focus:bg-leaf focus:px-3 focus:py-1.5"
          onClick={() => {
            const part = document.querySelector(where);
            if (part) focusPart(part);
          }}
        >
          {words} (F6 goes on)
        </button>
      ))}
    </p>
  );
}
