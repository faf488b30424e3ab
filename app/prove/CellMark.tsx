import type { CellLook, Turn } from "./model/cells";

// Boxes, because a grid of a thousand drawings takes the browser several times as long to paint.
const LOOKS: Readonly<Record<Exclude<CellLook, "faulty">, string>> = {
  holds: "size-[11px] rounded-full border-[1.5px] border-moss bg-fern",
  vacuous:
    "size-[11px] rounded-full border-[1.5px] border-moss bg-[linear-gradient(var(--moss),var(--moss))] bg-[length:5px_1.5px] bg-center bg-no-repeat",
  // Two triangles.
  fails:
    "before:block before:border-x-[6.5px] before:border-b-[6.5px] before:border-x-transparent before:border-b-foxglove after:block after:border-x-[6.5px] after:border-t-[6.5px] after:border-x-transparent after:border-t-foxglove",
  unknown: "size-[10px] rounded-full border border-dashed border-soft",
  unasked: "size-1 rounded-full bg-line",
};

/**
 * The mark of a cell, distinguishable by shape: a full circle, an empty one with a bar, an edged stone, a ring, a hook, or
 * nothing.
 */
export function CellMark({ look }: { look: CellLook }) {
  if (look !== "faulty") return <span aria-hidden className={`block shrink-0 ${LOOKS[look]}`} />;
  return (
    <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
      <path d="M4 12 8 4l4 8" fill="none" strokeWidth="2" className="stroke-foxglove" />
    </svg>
  );
}

/** The mark of a result that changed, at the corner of its cell: an arrow up, or down. */
export function TurnMark({ turn }: { turn: Turn }) {
  return (
    <svg
      viewBox="0 0 8 16"
      className={`absolute top-1 right-1 h-4 w-2 fill-none stroke-2 ${turn === "held" ? "stroke-moss" : "stroke-foxglove"}`}
      aria-hidden
    >
      <path d={turn === "held" ? "M4 14V3M1 6.5 4 3l3 3.5" : "M4 2v11M1 9.5 4 13l3-3.5"} />
    </svg>
  );
}
