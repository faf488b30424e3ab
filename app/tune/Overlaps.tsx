import { useMemo, useState } from "react";
import { nanoid } from "nanoid";
import {
  countWords,
  nameOf,
  cutLetters,
  type Check,
  type Kit,
  type Overlap,
  type Overlaps as Found,
  type Take,
} from "#core";
import { freshId } from "../edits/freshId";
import { useStudy, useStudying } from "../document/studiesContext";
import { useWorkbench } from "../document/workbenchContext";
import { Button } from "../ui/Button";
import { listOverlapGrids } from "./model/overlapGrid";
import { OverlapDrawing } from "./OverlapDrawing";
import { OverlapGrid } from "./OverlapGrid";
import { StudyBar } from "./StudyBar";
import { useGoTo } from "./useGoTo";
import { useTakeSelection } from "./TakesWord";

const WIDTH = 250;
const LABEL = 80;
const ROW = 11;
/** The most frames drawn before and after both rules. */
const AROUND = 90;

/** A small drawing of a witness: a row per control, and the frames of both rules. */
function Witness({ kit, take, at }: { kit: Kit; take: Take; at: readonly number[] }) {
  // A take of the kit may be of another rate; the frames of the rules are the kit's.
  const all = Object.entries(take.lanes).map(
    ([id, lane]) => [id, lane.map(([x, value]) => [(x * kit.rate) / take.rate, value] as const)] as const,
  );
  const last = Math.min(
    Math.max(...at, ...all.flatMap(([, lane]) => lane.map(([x]) => x))) + 4,
    at.at(-1)! + AROUND,
  );
  const first = Math.max(0, at[0]! - AROUND);
  const lanes = all.filter(([, lane]) => lane.some(([x]) => x >= first && x < last));
  const xOf = (frame: number) =>
    LABEL + ((Math.min(last, Math.max(first, frame)) - first) / (last - first)) * (WIDTH - LABEL - 4);
  return (
    <svg width={WIDTH} height={lanes.length * ROW + 8} className="shrink-0" aria-hidden>
      {lanes.map(([id, lane], k) => (
        <g key={id}>
          <text x="0" y={k * ROW + 9} className="fill-soft text-[10px]">
            {cutLetters(nameOf(kit, "controls", id), 15)}
          </text>
          {lane.map(([x, value], n) =>
            value > 0 && x < last && (lane[n + 1]?.[0] ?? last) > first ? (
              <rect
                key={n}
                x={xOf(x)}
                y={k * ROW + 2}
                width={Math.max(2, xOf(lane[n + 1]?.[0] ?? last) - xOf(x))}
                height={ROW - 3}
                className="fill-bark"
              />
            ) : null,
          )}
        </g>
      ))}
      {at.map((frame, k) => (
        <line
          key={k}
          x1={xOf(frame)}
          x2={xOf(frame)}
          y1="0"
          y2="100%"
          strokeWidth="2"
          className={k === 0 ? "stroke-moss" : "stroke-foxglove"}
          strokeDasharray={k === 0 ? "none" : "3 2"}
        />
      ))}
    </svg>
  );
}

/** Formats how often the two came together: "in all 14 inputs tried and 6 times of 7 in the takes". */
function togetherWords({ inInputs, inTakes }: Overlap): string {
  const share = ({ total, alone }: Overlap["inInputs"]) =>
    alone === 0 ? `all ${total}` : `${total - alone} of ${total}`;
  const { total, alone } = inTakes;
  const times =
    alone > 0 ? `${total - alone} of the ${countWords(total, "time")}` : `each of the ${total} times`;
  const played =
    total === 0 ? "" : `, and ${total === 1 && alone === 0 ? "the one time" : times} it came in the takes`;
  if (inInputs.total === 0) return played.slice(", and ".length);
  return `in ${share(inInputs)} of the inputs tried that set it off${played}`;
}

/**
 * Formats an overlap: "Quarter turn fires Strike press on its way, 4f before, in all 14 of the inputs tried
 * …".
 */
export function overlapWords(kit: Kit, overlap: Overlap): string {
  const { list, first, second, firstFrame, secondFrame, mode, inInputs, inTakes } = overlap;
  const [one, two] = [first, second].map(index => nameOf(kit, list, kit[list]![index]!.id));
  const verb = list === "patterns" ? "fires" : "performs";
  const apart = secondFrame - firstFrame;
  const where = mode === undefined ? "" : `, in ${nameOf(kit, "modes", mode)}`;
  // No number of inputs proves that it always happens, so the note gives the number tried.
  if (inInputs.alone === 0 && inTakes.alone === 0)
    return `${two} ${verb} ${one} on its way${apart === 0 ? ", on the same frame" : `, ${apart}f before`}${where}: ${togetherWords(overlap)}.`;
  if (apart === 0) return `One press sets off both ${one} and ${two}, on the same frame${where}.`;
  return `One press sets off ${one}, and ${apart}f later ${two}${where}.`;
}

/** Returns the actions on an overlap: its input as a take, and a check that it never happens. */
function useOverlapActions(kit: Kit) {
  const workbench = useWorkbench();
  const goTo = useGoTo();
  const open = (overlap: Overlap): string => {
    if (overlap.isPlayed) {
      goTo(overlap.witness.id, overlap.firstFrame);
      return overlap.witness.id;
    }
    const words = overlapWords(kit, overlap);
    const id = nanoid(8);
    workbench.addTake({ ...overlap.witness, id, name: words.slice(0, 120) }, `opened a witness: ${words}`);
    return id;
  };
  const toCheck = (overlap: Overlap) => {
    const take = open(overlap);
    const { id } = kit[overlap.list]![overlap.second]!;
    const kind = overlap.list === "patterns" ? "fired" : "performed";
    const name = `${nameOf(kit, overlap.list, id)} does not happen here`;
    workbench.editChecks(`check: ${name}`, now => [
      ...now,
      {
        id: freshId("check", new Set(now.map(check => check.id))),
        name,
        on: [take],
        never: { kind, id },
      } as Check,
    ]);
  };
  return { open, toCheck };
}

/** The overlaps found, each with its shortest input. `about` is the studied kit. */
function FoundList({
  found,
  kit,
  about,
  testId,
}: {
  found: readonly Overlap[];
  kit: Kit;
  about: Kit;
  testId: string;
}) {
  const { open, toCheck } = useOverlapActions(about);
  return (
    <ul data-testid={testId}>
      {found.map(overlap => (
        <li
          key={`${overlap.list} ${overlap.first} ${overlap.second}`}
          className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-4 border-t border-line py-1.5 max-lg:grid-cols-[minmax(0,1fr)_auto]"
        >
          <span>{overlapWords(about, overlap)}</span>
          <Witness kit={kit} take={overlap.witness} at={[overlap.firstFrame, overlap.secondFrame]} />
          <span className="whitespace-nowrap text-sm">
            <Button look="quiet" onClick={() => open(overlap)}>
              {overlap.isPlayed ? "Show in its take" : "Open as a take"}
            </Button>
            {!overlap.isPlayed && (
              <Button look="quiet" onClick={() => toCheck(overlap)}>
                Check that it never does
              </Button>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The rules that no input set off, and the pairs without an overlap, with the extent of the search. */
function NotFound({ silent, none, kit }: Pick<Found, "silent" | "none"> & { kit: Kit }) {
  const nameAt = (list: Overlap["list"], index: number) => nameOf(kit, list, kit[list]![index]!.id);
  const longest = none.reduce((frames, pair) => Math.max(frames, pair.frames), 0);
  return (
    <>
      {silent.length > 0 && (
        <ul className="mt-2 text-sm text-foxglove" aria-label="Never set off">
          {silent.map(({ list, index, tried, frames }) => (
            <li key={`${list} ${index}`}>
              {nameAt(list, index)} was never {list === "patterns" ? "fired" : "performed"} by{" "}
              {countWords(tried, "input")} of up to {frames}f.
            </li>
          ))}
        </ul>
      )}
      {none.length > 0 && (
        <details className="mt-2 text-sm">
          <summary className="text-moss">
            {countWords(none.length, "pair")} without one; the longest input tried was {longest}f
          </summary>
          <ul>
            {none.map(({ list, first, second, tried, frames }) => (
              <li key={`${list} ${first} ${second}`}>
                {nameAt(list, first)} and {nameAt(list, second)}: {countWords(tried, "input")} of up to{" "}
                {frames}f
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** The pairs as grids, the chosen one in words with its input, and all of them as a list. */
function FoundPairs({ found, none, kit, about }: Pick<Found, "found" | "none"> & { kit: Kit; about: Kit }) {
  const [wanted, setWanted] = useState<Overlap>();
  const grids = useMemo(() => listOverlapGrids(found, none), [found, none]);
  const chosen = wanted && found.includes(wanted) ? wanted : found[0];
  if (grids.length === 0) return null;
  return (
    <>
      <div className="flex flex-wrap gap-x-12">
        {grids.map(grid => (
          <div key={grid.list}>
            <OverlapGrid kit={about} grid={grid} chosen={chosen} onChoose={setWanted} />
            <OverlapDrawing kit={about} grid={grid} />
          </div>
        ))}
      </div>
      <p className="mt-2 text-sm text-soft" aria-hidden>
        <span className="text-foxglove">◆</span> one press always sets off both ·{" "}
        <span className="text-foxglove">◇</span> sometimes · a point: none found.
        {chosen && " Choose one to see its input."}
      </p>
      {chosen && (
        <>
          <FoundList found={[chosen]} kit={kit} about={about} testId="overlap" />
          <details className="mt-2">
            <summary className="text-sm text-moss">All {found.length} as a list</summary>
            <FoundList found={found} kit={kit} about={about} testId="overlaps" />
          </details>
        </>
      )}
    </>
  );
}

const NOTHING: Found = { found: [], none: [], silent: [], runs: 0 };

/**
 * Pairs of rules set off by one input, each with its shortest input; pairs without one show the extent of the
 * search.
 */
export function Overlaps({ kit }: { kit: Kit }) {
  const studying = useStudying();
  const { takes } = useTakeSelection();
  const study = useStudy("overlaps");
  const begin = () =>
    studying.begin("overlaps", {
      job: "overlaps",
      questions: [{ kit }],
      takes,
      merge: ([found]) => found ?? NOTHING,
    });
  const about = study?.kit ?? kit;
  const { found, none, silent, runs } = study?.value ?? NOTHING;
  return (
    <section aria-label="Overlaps">
      <h2 className="font-serif text-2xl">What gets in the way of what</h2>
      <p className="text-sm text-soft">
        For each two rules that share a control, presses exactly at the limits of each are tried: can one
        press set off both, and which comes first? The stage is left out; gates that a move needs are held
        open, or left at the first press, and outputs that it needs are turned on first. Takes that show one
        rule without the other count, too.
      </p>
      <StudyBar name="overlaps" word="Look for overlaps" canBegin={kit.patterns.length > 0} onBegin={begin}>
        {study?.state === "done" && (
          <span className="text-soft">
            {found.length} found in {countWords(found.length + none.length, "pair")}; n ={" "}
            {countWords(runs, "input")} run
          </span>
        )}
      </StudyBar>
      <FoundPairs found={found} none={none} kit={kit} about={about} />
      <NotFound silent={silent} none={none} kit={about} />
      {study?.state === "done" && found.length + none.length === 0 && (
        <p className="text-soft">No two rules share a control: nothing can get in the way.</p>
      )}
    </section>
  );
}
