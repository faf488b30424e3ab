import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";
import { Button } from "./Button";

/**
 * A dialog over the page: a title, its content, and Close. Escape closes it too, and the focus returns to
 * where it was.
 */
export function Sheet({
  title,
  isOpen,
  isWide = false,
  onClose,
  children,
}: {
  title: string;
  isOpen: boolean;
  isWide?: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open={isOpen} onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-veil" aria-hidden />
      <div className="fixed inset-0 grid grid-cols-1 place-items-center p-6 narrow:p-2">
        <DialogPanel
          className={`max-h-full overflow-auto rounded-stone border-2 border-ink bg-paper p-6 narrow:p-4 ${isWide ? "w-[860px]" : "w-[560px]"} max-w-full`}
        >
          <DialogTitle className="font-serif text-2xl font-semibold">{title}</DialogTitle>
          {children}
          <p className="mt-4 text-right">
            <Button onClick={onClose}>Close</Button>
          </p>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
