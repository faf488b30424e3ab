import { useEffect } from "react";
import { usePad } from "../input/context";

/** The landmarks between which one key goes; those inside another one are passed over. */
const PARTS = "header, main nav[aria-label], main section[aria-label], main aside, section[aria-label=Tape]";
const FOCUSABLE =
  "a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex]:not([tabindex='-1'])";
/** The drawn tape comes before the tools above it, for which it has keys of its own. */
const TAPE = "[data-testid=tape]";
const NEXT_PART = "F6";

const isShown = (element: Element) => element.checkVisibility();

/** Returns the landmarks of the page that are shown, in their order. */
function listParts(): readonly Element[] {
  const all = [...document.querySelectorAll(PARTS)].filter(isShown);
  return all.filter(part => !all.some(other => other !== part && other.contains(part)));
}

/** Moves the focus to the first place of a landmark that takes it; returns false if none does. */
export function focusPart(part: Element): boolean {
  const places = [...part.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isShown);
  const place = part.querySelector<HTMLElement>(TAPE) ?? places[0];
  place?.focus();
  return place !== undefined;
}

/** Moves the focus to the next landmark after the one that has it, or to the one before. */
function focusNext(by: 1 | -1): void {
  const parts = listParts();
  const now = document.activeElement ?? document.body;
  // Between landmarks, such as on the page itself, the next one is the first that follows.
  const own = parts.findIndex(part => part.contains(now));
  const follows = (part: Element) =>
    (now.compareDocumentPosition(part) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
  const following = parts.findIndex(follows);
  const first = own >= 0 ? own + by : by > 0 ? following : following - 1;
  for (let k = 0; k < parts.length; k++) {
    const at = (((first + k * by) % parts.length) + parts.length) % parts.length;
    if (focusPart(parts[at]!)) return;
  }
}

/** Goes from part to part of the page by F6, and back with Shift, while the keys do not belong to the kit. */
export function usePartKeys(): void {
  const pad = usePad();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const { session, isLinked } = pad.getState();
      if (event.key !== NEXT_PART || event.ctrlKey || event.altKey || (session && !isLinked)) return;
      event.preventDefault();
      focusNext(event.shiftKey ? -1 : 1);
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, [pad]);
}
