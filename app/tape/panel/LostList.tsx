import { useMemo } from "react";
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { formatFate, type Fate, type Kit, type NearestMiss } from "#core";
import { goToFrame } from "../../document/playhead";
import type { Evaluated } from "../../document/workbench";
import { fatesOf } from "../model/pressOf";
import { tapeLook } from "../tapeLook";
import { useMisses } from "./useMisses";

interface Missed {
  readonly fate: Fate;
  readonly miss: NearestMiss | undefined;
}

/** Every lost press of the open take, nearest miss first; worked out by a worker when the list is opened. */
function LostPresses({
  kit,
  evaluated,
  lost,
  close,
}: {
  kit: Kit;
  evaluated: Evaluated;
  lost: readonly Fate[];
  close: () => void;
}) {
  const { found, done, trouble } = useMisses(kit, evaluated, lost);
  const list = useMemo(() => {
    const missed = lost.map((fate, i): Missed => ({ fate, miss: found?.[i] }));
    const far = ({ miss }: Missed) => miss?.missFrames ?? Infinity;
    return found
      ? missed.sort((a, b) => (far(a) === far(b) ? 0 : far(a) - far(b)) || a.fate.frame - b.fate.frame)
      : missed;
  }, [lost, found]);
  return (
    <>
      <p className="px-3 py-1 text-soft" role="status">
        {trouble
          ? `What would have saved them was not found: ${trouble}`
          : found
            ? "Nearest miss first"
            : `Looking for what would have saved them: ${done} of ${lost.length}`}
      </p>
      <ul data-testid="lost-list">
        {list.map(({ fate, miss }) => (
          <li key={`${fate.control} ${fate.frame}`}>
            <button
              type="button"
              className="block w-full rounded-xl px-3 py-1.5 text-left hover:bg-sand focus-visible:bg-sand"
              onClick={() => {
                goToFrame(fate.frame, evaluated.trace.frames);
                tapeLook.setState({ fate });
                close();
              }}
            >
              {formatFate(kit, evaluated.program, evaluated.trace, fate)}{" "}
              {miss && <b className="text-foxglove">Missed by {miss.missFrames}f.</b>}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** How many presses of the open take were lost, and the list of them. */
export function LostList({ kit, evaluated }: { kit: Kit; evaluated: Evaluated }) {
  const lost = useMemo(
    () => fatesOf(evaluated.program, evaluated.trace).filter(fate => fate.outcome === "lost"),
    [evaluated],
  );
  if (lost.length === 0) return <span className="whitespace-nowrap text-soft">no press lost</span>;
  return (
    <Popover>
      <PopoverButton className="flex items-center gap-1.5 whitespace-nowrap underline-offset-4 hover:underline">
        <svg aria-hidden width="14" height="14" viewBox="0 0 14 14">
          <path d="M3 11a5.2 5.2 0 1 1 7.5-.6" fill="none" className="stroke-foxglove" strokeWidth="2.4" />
        </svg>
        {lost.length} {lost.length === 1 ? "press" : "presses"} lost
      </PopoverButton>
      <PopoverPanel
        anchor="top"
        className="z-30 max-h-80 w-[460px] overflow-auto rounded-stone border border-line bg-leaf p-2 text-sm shadow-lg"
      >
        {({ close }) => <LostPresses kit={kit} evaluated={evaluated} lost={lost} close={close} />}
      </PopoverPanel>
    </Popover>
  );
}
