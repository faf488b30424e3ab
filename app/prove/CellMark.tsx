import type { CellLook, Turn } from "./model/cells";

/**
 * The mark of a cell, distinguishable by shape: a full circle, an empty one with a bar, an edged stone, a ring, a hook, or
 * nothing.
 */
export function CellMark({ look }: { look: CellLook }) {
  switch (look) {
    case "holds":
      return (
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
          <circle cx="8" cy="8" r="4.5" className="fill-fern stroke-moss" strokeWidth="1.5" />
        </svg>
      );
    case "vacuous":
      return (
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
          <circle cx="8" cy="8" r="4.5" fill="none" className="stroke-moss" strokeWidth="1.5" />
          <path d="M5.5 8h5" className="stroke-moss" strokeWidth="1.5" />
        </svg>
      );
    case "fails":
      return (
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
          <path d="M8 1.5 14.5 8 8 14.5 1.5 8Z" className="fill-foxglove" />
        </svg>
      );
    case "unknown":
      return (
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
          <circle cx="8" cy="8" r="4.5" fill="none" className="stroke-soft" strokeDasharray="2 2" />
        </svg>
      );
    case "faulty":
      return (
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
          <path d="M4 12 8 4l4 8" fill="none" strokeWidth="2" className="stroke-foxglove" />
        </svg>
      );
    case "unasked":
      return <span className="block size-1 rounded-full bg-line" />;
  }
}

/** The mark of a result that changed, at the corner of its cell: an arrow up, or down. */
export function TurnMark({ turn }: { turn: Turn }) {
  return (
    <svg
      viewBox="0 0 8 16"
      className={`absolute top-0.5 right-0.5 h-4 w-2 fill-none stroke-2 ${turn === "held" ? "stroke-moss" : "stroke-foxglove"}`}
      aria-hidden
    >
      <path d={turn === "held" ? "M4 14V3M1 6.5 4 3l3 3.5" : "M4 2v11M1 9.5 4 13l3-3.5"} />
    </svg>
  );
}
