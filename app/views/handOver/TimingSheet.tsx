import { useEffect, useMemo, useRef } from "react";
import { createPortal } from "react-dom";
import { formatSheetBody, SHEET_STYLE, type Handover } from "#handover";
import { isShort } from "../../judging/makeFiles";
import { SheetWishesLine } from "./SheetWishes";
import { Button } from "../../ui/Button";

/** Fills an element with a sheet, apart from the page's own looks. The text was made by us, and escaped where it was made. */
function fillPaper(element: HTMLElement, body: string): void {
  const root = element.shadowRoot ?? element.attachShadow({ mode: "open" });
  const style = new CSSStyleSheet();
  style.replaceSync(SHEET_STYLE);
  root.adoptedStyleSheets = [style];
  root.innerHTML = body;
}

function Paper({ body, className, label }: { body: string; className: string; label?: string }) {
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (host.current) fillPaper(host.current, body);
  }, [body]);
  return (
    <div
      ref={host}
      className={className}
      data-testid={label ? "sheet" : "sheet-print"}
      aria-label={label}
      role={label ? "document" : undefined}
      tabIndex={label ? 0 : undefined}
    />
  );
}

/** The timing sheet as it prints. When the page is printed, the sheet is what comes out. */
export function TimingSheet({ handover }: { handover: Handover }) {
  const body = useMemo(() => (isShort(handover) ? formatSheetBody(handover) : undefined), [handover]);
  if (body === undefined)
    return (
      <p className="px-6 py-4 text-soft">With takes this long the sheet is made when it is saved, below.</p>
    );
  return (
    <section aria-label="Timing sheet" className="flex min-h-0 flex-col px-6 py-4">
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="font-serif text-xl">The timing sheet, as it prints</h2>
        <Button look="strong" onClick={() => window.print()}>
          Print it
        </Button>
      </div>
      <SheetWishesLine />
      <Paper
        body={body}
        className="min-h-72 grow overflow-auto max-lg:h-96 rounded-stone border border-line bg-[#fff]"
        label="Timing sheet"
      />
      {createPortal(<Paper body={body} className="print-only" />, document.body)}
    </section>
  );
}
