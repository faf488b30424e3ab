import { useId, type ReactNode } from "react";
import { useStored } from "./useStored";

/** A section with a heading that folds it; it remembers whether it is open, in this browser. */
export function Fold({
  name,
  isLast = false,
  children,
}: {
  name: string;
  isLast?: boolean;
  children: ReactNode;
}) {
  const [isOpen, setOpen] = useStored(`moss-tap-fold-${name}`, text => text !== "false");
  const id = useId();
  return (
    <section aria-label={name} className={isLast ? "" : "border-b border-line pb-2"}>
      <h2 className="text-sm font-semibold">
        <button
          type="button"
          aria-expanded={isOpen}
          aria-controls={id}
          className="flex w-full items-center gap-2 py-1 text-left hover:text-moss"
          onClick={() => setOpen(!isOpen)}
        >
          <svg aria-hidden width="10" height="10" viewBox="0 0 10 10" className={isOpen ? "rotate-90" : ""}>
            <path d="M3 1l4 4-4 4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
          {name}
        </button>
      </h2>
      <div id={id} hidden={!isOpen}>
        {isOpen && children}
      </div>
    </section>
  );
}
