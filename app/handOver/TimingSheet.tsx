import { useEffect, useMemo, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { escapeHtml, formatSheetBody, SHEET_STYLE, type Handover } from "#handover";
import { useWorkers } from "../judging/workers";
import { isShort, quietFor } from "../judging/makeFiles";
import { SheetOptionsLine } from "./SheetOptions";
import { Button } from "../ui/Button";

/**
 * Fills an element with a sheet, isolated from the page's styles. The text is generated and escaped by us.
 */
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

/**
 * Returns the sheet of a handover: made at once, or by a worker if takes are long; undefined while it is
 * being made.
 */
function useSheetBody(handover: Handover): string | undefined {
  const { jobs } = useWorkers();
  const atOnce = useMemo(() => (isShort(handover) ? formatSheetBody(handover) : undefined), [handover]);
  const [made, setMade] = useState<{ readonly of: Handover; readonly body: string }>();
  useEffect(() => {
    if (isShort(handover)) return;
    const { takes, ...question } = handover;
    // All takes are run without a report in between.
    const frames = takes.reduce((sum, take) => sum + take.frames, 0);
    const quietMs = quietFor([{ frames }]);
    const asked = jobs.ask({ job: "sheetBody", question, takes, lane: "sheet", quietMs });
    void asked.outcome.then(outcome => {
      if (outcome.state === "done") setMade({ of: handover, body: outcome.value });
      if (outcome.state === "failed")
        setMade({ of: handover, body: `<p>The sheet could not be made: ${escapeHtml(outcome.reason)}</p>` });
    });
    return asked.stop;
  }, [jobs, handover]);
  return atOnce ?? (made?.of === handover ? made.body : undefined);
}

/** The longest sheet that the page shows, in characters: 30,000 to 70,000 elements. */
const MAX_SHOWN = 3_000_000;

/** The timing sheet as it prints. Printing the page prints the sheet. */
export function TimingSheet({ handover }: { handover: Handover }) {
  const body = useSheetBody(handover);
  const isTooLong = body !== undefined && body.length > MAX_SHOWN;
  return (
    <section
      aria-label="The sheet as it prints"
      className="flex min-h-0 flex-col px-6 py-4 narrow:px-4 narrow:py-2"
    >
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="font-serif text-xl">The timing sheet, as it prints</h2>
        <Button look="strong" disabled={body === undefined || isTooLong} onClick={() => window.print()}>
          Print it
        </Button>
      </div>
      <SheetOptionsLine />
      {body === undefined ? (
        <p role="status" className="text-soft">
          The sheet is being made: kit or takes are large…
        </p>
      ) : isTooLong ? (
        <p className="text-soft">
          The sheet has <span className="font-mono">{(body.length / 1e6).toFixed(1)} MB</span>, too much for
          this page: save it as a file under Timing sheet, and print that.
        </p>
      ) : (
        <>
          <Paper
            body={body}
            className="min-h-72 grow overflow-auto rounded-stone border border-line bg-[#fff] text-[#000] forced-color-adjust-none max-lg:h-96"
            label="Timing sheet"
          />
          {createPortal(<Paper body={body} className="print-only" />, document.body)}
        </>
      )}
    </section>
  );
}
