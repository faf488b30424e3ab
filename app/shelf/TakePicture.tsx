import { useEffect, useState } from "react";
import type { Kit, Take } from "#core";
import { useWorkers } from "../judging/workers";
import { isLong } from "../judging/longTake";
import type { TakePicture as Picture } from "../judging/jobs/picture";

const WIDTH = 320;
/** A picture that takes longer is omitted, so that a card does not occupy a worker. */
const WITHIN_MS = 4000;

/** Returns the picture of a take, computed by a worker; undefined until then, or if it takes too long. */
function usePicture(kit: Kit, take: Take | undefined): Picture | undefined {
  const { jobs } = useWorkers();
  const [picture, setPicture] = useState<Picture | undefined>();
  useEffect(() => {
    if (!take || isLong(take, kit.rate)) return;
    const asked = jobs.ask({ job: "picture", question: { kit }, takes: [take] });
    const limit = setTimeout(asked.stop, WITHIN_MS);
    void asked.outcome.then(outcome => {
      clearTimeout(limit);
      if (outcome.state === "done") setPicture(outcome.value);
    });
    return () => {
      clearTimeout(limit);
      asked.stop();
    };
  }, [jobs, kit, take]);
  return picture;
}

/** A small picture of a take: presses as bars, performances as discs, losses as gaps. */
export function TakePicture({
  kit,
  take,
  words = "",
}: {
  kit: Kit;
  take: Take | undefined;
  /** Why there is no picture; empty while it is loaded. */
  words?: string;
}) {
  const picture = usePicture(kit, take);
  const rows = Math.max(1, kit.controls.length);
  return (
    <svg viewBox={`0 0 ${WIDTH} 76`} className="block w-full rounded-t-[12px] bg-sand" aria-hidden>
      {picture?.bars.map(({ control, from, to }, i) => (
        <rect
          key={i}
          x={from * WIDTH}
          width={Math.max(2, (to - from) * WIDTH)}
          y={10 + (control * 36) / rows}
          height={Math.min(7, 30 / rows)}
          rx="2"
          className="fill-bark"
        />
      ))}
      {picture?.stones.map(({ at, isLost }, i) =>
        isLost ? (
          <path
            key={i}
            d={`M${at * WIDTH - 3} 64a4.5 4.5 0 1 1 6 0`}
            fill="none"
            strokeWidth="2"
            className="stroke-foxglove"
          />
        ) : (
          <ellipse key={i} cx={at * WIDTH} cy="61" rx="4.5" ry="3.5" className="fill-moss" />
        ),
      )}
      {words !== "" && (
        <text x={WIDTH / 2} y="42" textAnchor="middle" className="fill-soft text-sm">
          {words}
        </text>
      )}
    </svg>
  );
}
