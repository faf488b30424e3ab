import { useId, useRef, useState, type KeyboardEvent, type ReactNode } from "react";
import type { ExportFormat } from "#handover";
import { useStored } from "../ui/useStored";

/** Reads the id of the open form; the first one if nothing was chosen yet, none if the last one was closed. */
function readOpen(text: string | null, formats: readonly ExportFormat[]): string {
  const open = text === null ? formats[0] : formats.find(({ id }) => JSON.stringify(id) === text);
  return open?.id ?? "";
}

function Heading({
  format,
  isOpen,
  isStop,
  controls,
  onPress,
}: {
  format: ExportFormat;
  isOpen: boolean;
  /** Whether the tab key stops here; arrows reach the others. */
  isStop: boolean;
  controls: string;
  onPress: () => void;
}) {
  return (
    <div className="relative flex items-baseline gap-3 py-2 hover:text-moss">
      <h2 className="shrink-0 font-serif text-lg">
        <button
          type="button"
          aria-expanded={isOpen}
          aria-controls={controls}
          tabIndex={isStop ? 0 : -1}
          className="after:absolute after:inset-0"
          onClick={onPress}
        >
          {format.word}
        </button>
      </h2>
      {!isOpen && <span className="min-w-0 truncate text-sm text-soft">{format.hint}</span>}
      <svg
        aria-hidden
        width="10"
        height="10"
        viewBox="0 0 10 10"
        className={`ml-auto shrink-0 ${isOpen ? "rotate-90" : ""}`}
      >
        <path d="M3 1l4 4-4 4" fill="none" stroke="currentColor" strokeWidth="1.5" />
      </svg>
    </div>
  );
}

/**
 * The export forms as a list, one of them open; this browser remembers which. Only the files of forms that were opened
 * are made, and they are kept when another form is opened. Arrows, Home and End go through the list.
 */
export function FormList({
  formats,
  children,
}: {
  formats: readonly ExportFormat[];
  /** Draws the files of a form. */
  children: (format: ExportFormat) => ReactNode;
}) {
  const [open, setOpen] = useStored("moss-tap-form", text => readOpen(text, formats));
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set([open]));
  const list = useRef<HTMLUListElement>(null);
  const id = useId();
  const stop = formats.find(format => format.id === open) ?? formats[0];
  const press = (pressed: string) => {
    setOpen(pressed === open ? "" : pressed);
    setOpened(new Set([...opened, pressed]));
  };
  const move = (event: KeyboardEvent) => {
    const headings = [...list.current!.querySelectorAll<HTMLElement>("h2 > button")];
    const at = headings.indexOf(event.target as HTMLElement);
    if (at < 0) return;
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: headings.length - 1 }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    headings[next]?.focus();
  };
  return (
    <ul ref={list} aria-label="Forms" className="border-t border-line" onKeyDown={move}>
      {formats.map(format => (
        <li key={format.id} className="border-b border-line">
          <section aria-label={format.word}>
            <Heading
              format={format}
              isOpen={format.id === open}
              isStop={format === stop}
              controls={`${id}-${format.id}`}
              onPress={() => press(format.id)}
            />
            <div id={`${id}-${format.id}`} hidden={format.id !== open} className="pb-3">
              {opened.has(format.id) && (
                <>
                  <p className="mb-1 text-sm text-soft">{format.hint}</p>
                  {children(format)}
                </>
              )}
            </div>
          </section>
        </li>
      ))}
    </ul>
  );
}
