import { Popover, PopoverButton, PopoverPanel, type PopoverPanelProps } from "@headlessui/react";
import type { ReactNode } from "react";

/** Something that opens beside the word that opens it, and closes on Escape or a click elsewhere. */
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
  /** A name for those who cannot see the word. */
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
        anchor={anchor}
        className={`z-30 overflow-auto rounded-stone border border-line bg-leaf text-sm shadow-lg ${panelLook}`}
      >
        {({ close }) => <>{children(close)}</>}
      </PopoverPanel>
    </Popover>
  );
}
