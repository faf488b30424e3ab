import { Popover, PopoverButton, PopoverPanel, type PopoverPanelProps } from "@headlessui/react";
import type { ReactNode } from "react";

/** A panel that opens beside its word, and closes on Escape or an outside click. */
export function Flap({
  word,
  wordLook,
  label,
  anchor,
  panelLook,
  className = "",
  children,
}: {
  word: ReactNode;
  wordLook: string;
  /** The accessible name. */
  label?: string;
  anchor: NonNullable<PopoverPanelProps["anchor"]>;
  panelLook: string;
  className?: string;
  children: (close: () => void) => ReactNode;
}) {
  return (
    <Popover className={className}>
      <PopoverButton className={wordLook} aria-label={label}>
        {word}
      </PopoverButton>
      <PopoverPanel
        role="dialog"
        aria-label={label ?? (typeof word === "string" ? word : undefined)}
        anchor={anchor}
        className={`z-30 overflow-auto max-w-[calc(100vw-1rem)] rounded-stone border border-line bg-leaf text-sm shadow-lg ${panelLook}`}
      >
        {({ close }) => <>{children(close)}</>}
      </PopoverPanel>
    </Popover>
  );
}
