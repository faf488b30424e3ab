import { countWords, type Kit, type PressShare, type Share } from "#core";
import { useStudy, useStudySettings } from "../../document/studiesContext";
import type { SpreadPoint } from "../../judging/jobs/spread";
import { LineChart } from "../../ui/LineChart";
import { SavePicture } from "../SavePicture";
import { SO_FAR } from "../sweep/SweepWords";
import { usedFor } from "../model/usedFor";

/** The share of plays in which a move or prompt uses one press, over the spread of the character. */
function SpreadCurve({
  points,
  press,
  kit,
  isWhole,
}: {
  points: readonly SpreadPoint[];
  press: PressShare;
  kit: Kit;
  /** Whether every spread has all of its plays. */
  isWhole: boolean;
}) {
  const line = (label: string, dash: readonly number[], read: (share: Share) => number) => ({
    label,
    look: "moss" as const,
    dash,
    points: points.map(({ spreadMs, share }) => ({ x: spreadMs, y: Math.round(read(share) * 100) })),
  });
  const name = `How often the press for ${usedFor(kit, press)} is used, over the spread of the hands`;
  const half = points.find(({ share }) => share.share < 0.5);
  return (
    <>
      <p className="text-sm" data-testid="spread-words">
        {!isWhole && SO_FAR}
        {half
          ? `Hands wider than about ${half.spreadMs} ms lose it more often than not.`
          : "Even the widest hands here get it more often than not."}{" "}
        <span className="text-soft">n = {countWords(points[0]?.share.n ?? 0, "play")} a spread.</span>
      </p>
      <LineChart
        label={name}
        lines={[
          line("plays that use it", [], share => share.share),
          line("95 % interval", [4, 3], share => share.low),
          line("", [4, 3], share => share.high),
        ]}
        marks={[]}
        xWords={`spread of the onset, ms (1f is ${Math.round(10_000 / kit.rate) / 10} ms)`}
        yWords="plays, %"
        yMost={100}
        formatX={x => String(x)}
        save={makeSvg => <SavePicture file="spread" name={name} makeSvg={() => makeSvg(name)} />}
      />
    </>
  );
}

/** The result of playing one press by wider and wider characters; nothing until a press is chosen. */
export function PressSpread({ kit }: { kit: Kit }) {
  const [{ press }] = useStudySettings("hands");
  const study = useStudy("spread");
  if (!press || !study) return null;
  const points = study.value;
  return (
    <div className="mt-3" data-testid="spread">
      <h3 className="text-sm font-semibold">
        Who loses the press for {usedFor(kit, press)} on {press.frame}f?
      </h3>
      {points && points.length > 1 ? (
        <SpreadCurve points={points} press={press} kit={kit} isWhole={study.state === "done"} />
      ) : (
        <p className="text-soft">Played with wider and wider hands…</p>
      )}
    </div>
  );
}
