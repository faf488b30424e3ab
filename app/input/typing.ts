import { BENCH_KEYS } from "./benchKeys";

/** The attribute of fields that are also dragged: they take the keys once their text is selected, by a click. */
const DRAGGED = "data-dragged";

const TEXT_TYPES = /^(?:text|search|number|email|url)$/;

/** Returns whether a target of events is a field in which one types. */
export function isTextField(target: EventTarget | null): target is HTMLElement {
  if (target instanceof HTMLTextAreaElement) return true;
  return target instanceof HTMLInputElement && TEXT_TYPES.test(target.type);
}

/** Follows whether a text field of the page has the keys, until the signal ends it. */
export function followTyping(
  onChange: (isTyping: boolean, timeMs: number) => void,
  signal: AbortSignal,
): {
  /** Returns whether a key event belongs to the field. Enter and Escape give the keys back, unless the text is refused. */
  readonly takes: (event: KeyboardEvent) => boolean;
} {
  let field: HTMLElement | undefined;

  const begin = (target: EventTarget | null, timeMs: number) => {
    if (field === target || !isTextField(target)) return;
    field = target;
    onChange(true, timeMs);
  };
  const end = (timeMs: number) => {
    if (!field) return;
    field = undefined;
    onChange(false, timeMs);
  };

  const onFocus = ({ target, timeStamp }: FocusEvent) => {
    if (target instanceof Element && !target.hasAttribute(DRAGGED)) begin(target, timeStamp);
  };
  const onSelect = ({ target, timeStamp }: Event) => {
    if (target === document.activeElement) begin(target, timeStamp);
  };
  document.addEventListener("focusin", onFocus, { signal });
  document.addEventListener("select", onSelect, { signal });
  document.addEventListener("focusout", ({ timeStamp }) => end(timeStamp), { signal });

  return {
    takes(event) {
      // A field that is removed loses its focus without an event.
      if (field && !field.isConnected) end(event.timeStamp);
      if (!field || event.target !== field || BENCH_KEYS[`key:${event.code}`]) return false;
      const own = field;
      if (event.type === "keydown" && (event.key === "Enter" || event.key === "Escape"))
        // The field handles the key first, and is marked invalid if it refuses its text.
        setTimeout(() => own.getAttribute("aria-invalid") !== "true" && own.blur());
      return true;
    },
  };
}
