import { countWords, nameOf, cutLetters, type Kit, type Overlap } from "#core";
import { axesOf, cellOf, type OverlapGrid as Grid, type PairCell, type PairLook } from "./model/overlapGrid";

const LOOK_WORDS: Readonly<Record<PairLook, string>> = {
  always: "always, in all inputs that set it off",
  sometimes: "sometimes",
  none: "none found",
};

const TITLES = { patterns: "Patterns", moves: "Moves" } as const;
const HEAD_LETTERS = 18;

/** The mark of a pair: a full lozenge for always, a hollow one for sometimes, a point for none found. */
function PairMark({ look }: { look: PairLook }) {
  if (look === "none") return <span aria-hidden className="block size-1 rounded-full bg-soft" />;
  return (
    <svg viewBox="0 0 16 16" className="size-4" aria-hidden>
      <path
        d="M8 1.5 14.5 8 8 14.5 1.5 8Z"
        strokeWidth="1.5"
        className={`stroke-foxglove ${look === "always" ? "fill-foxglove" : "fill-leaf"}`}
      />
    </svg>
  );
}

function Cell({
  cell,
  words,
  isChosen,
  onChoose,
}: {
  cell: PairCell | undefined;
  /** The names of the pair: "Quarter turn, then Strike press". */
  words: string;
  isChosen: boolean;
  onChoose: (overlap: Overlap) => void;
}) {
  if (!cell) return null;
  const { overlap, look, tried } = cell;
  const title = `${words}: ${LOOK_WORDS[look]}`;
  if (!overlap)
    return (
      <span className="grid h-7 place-items-center" title={`${title} in ${countWords(tried, "input")}`}>
        <PairMark look={look} />
        <span className="sr-only">{title}</span>
      </span>
    );
  return (
    <button
      type="button"
      aria-label={title}
      title={title}
      aria-pressed={isChosen}
      className={`grid h-7 w-full place-items-center rounded hover:bg-sand ${isChosen ? "bg-leaf outline-2 outline-moss" : ""}`}
      onClick={() => onChoose(overlap)}
    >
      <PairMark look={look} />
    </button>
  );
}

/** Rules against rules: the row comes first, and one press also sets off the column. A found pair can be chosen. */
export function OverlapGrid({
  kit,
  grid,
  chosen,
  onChoose,
}: {
  kit: Kit;
  grid: Grid;
  chosen: Overlap | undefined;
  onChoose: (overlap: Overlap) => void;
}) {
  const { list } = grid;
  const name = (index: number) => nameOf(kit, list, kit[list]![index]!.id);
  const { rows, columns } = axesOf(grid);
  return (
    <div className="mt-3 overflow-x-auto">
      <table className="mr-20 text-sm" aria-label={`${TITLES[list]}: which one press sets off`}>
        <thead>
          <tr className="h-24 align-bottom">
            <th scope="col" className="pr-4 pb-1 text-left font-normal text-soft">
              {TITLES[list]}: first ↓ then →
            </th>
            {columns.map(second => (
              <th key={second} scope="col" className="relative w-10 min-w-10 font-normal">
                <span
                  title={name(second)}
                  className="absolute bottom-1 left-5 origin-bottom-left -rotate-[42deg] text-xs whitespace-nowrap"
                >
                  {cutLetters(name(second), HEAD_LETTERS)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(first => (
            <tr key={first} className="border-t border-line">
              <th scope="row" className="pr-4 text-left font-normal whitespace-nowrap">
                {cutLetters(name(first), 28)}
              </th>
              {columns.map(second => {
                const cell = cellOf(grid, first, second);
                return (
                  <td key={second}>
                    <Cell
                      cell={cell}
                      words={`${name(first)}, then ${name(second)}`}
                      isChosen={chosen !== undefined && cell?.overlap === chosen}
                      onChoose={onChoose}
                    />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
