import { useCallback, useRef, useSyncExternalStore } from "react";
import { stageOf } from "#stage";
import type { Kit } from "#core";
import type { KeptArc } from "../../storage/records";
import { Button } from "../../ui/Button";
import { useNotices } from "../../ui/noticesContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useSceneSources } from "../useSceneSources";
import { keepArcs, readLastArc } from "./arcsNow";

/** The maximum number of kept arcs. */
const MAX_KEPT = 60;

type Measures = Pick<KeptArc, "heightTiles" | "airFrames" | "farTiles">;

const signed = (value: number, digits: number) =>
  `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(digits)}`;

/** Returns the last completed leap; re-renders only when it changes. */
function useLastArc() {
  const sources = useSceneSources();
  const known = useRef<ReturnType<typeof readLastArc>>(undefined);
  const read = useCallback(() => {
    const now = readLastArc(sources);
    const { current } = known;
    const isSame =
      now?.arc.from === current?.arc.from &&
      now?.arc.heightTiles === current?.arc.heightTiles &&
      now?.arc.airFrames === current?.arc.airFrames &&
      now?.arc.farTiles === current?.arc.farTiles;
    if (!isSame) known.current = now;
    return known.current;
  }, [sources]);
  const listen = useCallback(
    (onChange: () => void) => {
      const { pad, playback, evaluation } = sources;
      const stops = [pad.subscribe(onChange), playback.subscribe(onChange), evaluation.subscribe(onChange)];
      return () => stops.forEach(stop => stop());
    },
    [sources],
  );
  const last = useSyncExternalStore(listen, read, () => undefined);
  return { last, sources };
}

function formatMeasures({ heightTiles, airFrames, farTiles }: Measures): string {
  return `${heightTiles.toFixed(2)} tiles, ${airFrames}f, ${farTiles.toFixed(1)} far`;
}

/** Formats the difference between the last leap and a kept one. */
function formatDifference(kept: Measures, now: Measures): string {
  const parts = [
    [now.heightTiles - kept.heightTiles, 2, " high"],
    [now.airFrames - kept.airFrames, 0, "f"],
    [now.farTiles - kept.farTiles, 1, " far"],
  ] as const;
  const differences = parts.flatMap(([by, digits, word]) =>
    Number(by.toFixed(digits)) === 0 ? [] : [`${signed(by, digits)}${word}`],
  );
  return differences.join(", ") || "the same";
}

/** The kept arcs with their origins, and the difference of the last leap from each. */
export function ArcList({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const { notify } = useNotices();
  const kept = useDocument(state => state.settings.arcs) ?? [];
  const { last, sources } = useLastArc();
  if (stageOf(kit)?.kind !== "runner") return null;
  const set = (change: (arcs: readonly KeptArc[]) => readonly KeptArc[]) =>
    workbench.updateKitSettings(settings => ({ ...settings, arcs: [...change(settings.arcs ?? [])] }));
  const keep = () => {
    const fresh = keepArcs(sources);
    if (kept.length + fresh.length > MAX_KEPT)
      notify({
        tone: "trouble",
        title: `${MAX_KEPT} arcs are kept already.`,
        details: ["Remove one of them first: more could not be distinguished."],
      });
    else set(arcs => [...arcs, ...fresh]);
  };
  const drop = (arc: KeptArc) => {
    set(arcs => arcs.filter(item => item.id !== arc.id));
    notify({
      tone: "plain",
      title: `The arc of ${arc.move} is removed.`,
      details: [],
      action: { label: "Put it back", run: () => set(arcs => [...arcs, arc]) },
    });
  };
  return (
    <section aria-label="Arcs" className="text-sm" data-testid="arc-list">
      <p>
        {last ? (
          <>
            <b>{last.move}</b>, the last leap: {formatMeasures(last.arc)}.{" "}
          </>
        ) : (
          <span className="text-soft">Jump, and its height and length are measured here. </span>
        )}
        {last && (
          <Button
            look="quiet"
            className="-ml-2"
            onClick={event => {
              event.currentTarget.blur();
              keep();
            }}
          >
            Keep this arc
          </Button>
        )}
      </p>
      <ol className="mt-1" aria-label="Kept arcs">
        {kept.map((arc, k) => (
          <li key={arc.id} className="flex items-start gap-2 border-t border-line py-1">
            <span className="font-mono text-foxglove">{k + 1}</span>
            <span className="min-w-0 grow">
              <span className="block truncate" title={`${arc.move} in ${arc.take}, ${arc.numbers}`}>
                {arc.move} in {arc.take}, {arc.numbers}
              </span>
              <span className="block font-mono text-xs">{formatMeasures(arc)}</span>
              {last && <b className="block text-xs">now {formatDifference(arc, last.arc)}</b>}
            </span>
            <button
              type="button"
              aria-label={`Let arc ${k + 1} go`}
              className="px-1.5 text-soft hover:text-foxglove"
              onClick={() => drop(arc)}
            >
              ×
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
