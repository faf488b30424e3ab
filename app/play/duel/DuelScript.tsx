import { Fragment, type ReactNode } from "react";
import { parseFrames, readAt, writeAt, type Kit } from "#core";
import { DUEL_DEFAULTS, MAX_APART, stageOf, type DuelDocument } from "#stage";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { LengthStone } from "../../ui/LengthStone";
import { NumberStone } from "../../ui/NumberStone";
import { GateWord } from "../GateWord";
import { useWorkbench } from "../../document/workbenchContext";
import { KeptMarks } from "../../ui/KeptMarks";

const DEEDS = [
  { value: "strike", label: "strikes", hint: "winds up, then hits what does not guard or parry" },
  { value: "guard", label: "guards", hint: "what hits it is blocked" },
  { value: "away", label: "steps away", hint: "out of reach: every blow misses" },
];

/** The initial length of a guard or a step away. */
const LASTS = "40f";

type Line = DuelDocument["script"][number];

/** The opponent's script and its blows, as sentences with editable numbers. */
export function DuelScript({ kit }: { kit: Kit }) {
  const stage = stageOf(kit);
  return stage?.kind === "duel" ? <Script kit={kit} stage={stage} /> : null;
}

/** A part of the script, which shows the lengths of the stage by their labels and paths. */
interface ScriptPart {
  readonly kit: Kit;
  readonly stage: DuelDocument;
  readonly length: (
    label: string,
    value: string,
    path: readonly (string | number)[],
    least?: number,
  ) => ReactNode;
}

const OWN_BLOWS = [
  { words: "A blow of the fighter that hits opens", place: "ownHit", after: ",", suggested: "Hit" },
  { words: "one that is guarded", place: "ownBlocked", after: ",", suggested: "Guarded" },
  { words: "and one that misses", place: "ownMissed", after: ",", suggested: "Missed" },
] as const;

/** The gates that the fighter's own blows open, and for how long, as a sentence. */
function OwnBlows({ kit, stage, length }: ScriptPart) {
  return (
    <p data-testid="own-blows">
      <KeptMarks>
        {OWN_BLOWS.map(({ words, place, after, suggested }) => (
          <Fragment key={place}>
            {words}{" "}
            <GateWord
              kit={kit}
              label={`gate when ${words.replace(/^.*that /, "its own blow ").replace(/ opens$/, "")}`}
              value={stage.gates[place]}
              path={["stage", "gates", place]}
              suggested={suggested}
            />
            {after}{" "}
          </Fragment>
        ))}
        each for{" "}
        {length("how long these gates stay open", stage.outcome ?? DUEL_DEFAULTS.outcome, ["outcome"], 1)}. A
        guard that was hit holds for{" "}
        {length("guard stun", stage.guardStun ?? DUEL_DEFAULTS.guardStun, ["guardStun"])}.
      </KeptMarks>
    </p>
  );
}

/** The effects of a blow on the one that it hits, as a sentence. */
function BeingHit({ kit, stage, length }: ScriptPart) {
  return (
    <p>
      <KeptMarks>
        Whoever is hit is stunned for {length("stun", stage.stun, ["stun"])}; a hit stops the game for{" "}
        {length("hit stop", stage.hitStop, ["hitStop"])}. Being struck opens{" "}
        <GateWord
          kit={kit}
          label="gate when struck"
          value={stage.gates.hit}
          path={["stage", "gates", "hit"]}
          suggested="Struck"
        />
        , being blocked{" "}
        <GateWord
          kit={kit}
          label="gate when blocked"
          value={stage.gates.blocked}
          path={["stage", "gates", "blocked"]}
          suggested="Blocked"
        />
        .
      </KeptMarks>
    </p>
  );
}

/** The numbers of the stage that are distances, or the speed of coming back. */
type Space = "apart" | "reach" | "push" | "guardPush" | "back";

/** The distance of both, what reaches it, and what a blow does to it, as sentences. */
function Distances({ stage }: { stage: DuelDocument }) {
  const workbench = useWorkbench();
  const number = (label: string, path: readonly (Space | "strike")[], value: number) => (
    <NumberStone
      label={label}
      value={value}
      least={0}
      most={path[0] === "back" ? 1000 : MAX_APART}
      onChange={next => workbench.editKit(`${label} ${next}`, now => writeAt(now, ["stage", ...path], next))}
      beginStep={workbench.beginStep}
    />
  );
  const own = (label: string, field: Space) => number(label, [field], stage[field] ?? DUEL_DEFAULTS[field]);
  return (
    <p data-testid="distances">
      <KeptMarks>
        They begin {own("distance of the two", "apart")} tiles apart. A blow of the fighter reaches{" "}
        {own("reach of the fighter", "reach")} tiles, the opponent's strike{" "}
        {number("reach of its strike", ["strike", "reach"], stage.strike.reach ?? DUEL_DEFAULTS.reach)}. A hit
        pushes them {own("push of a hit", "push")} tiles further apart during its stun, a guarded blow{" "}
        {own("push of a guarded blow", "guardPush")}; while it waits, the opponent comes back at{" "}
        {own("speed of coming back", "back")} tiles a second.
      </KeptMarks>
    </p>
  );
}

function Script({ kit, stage }: { kit: Kit; stage: DuelDocument }) {
  const workbench = useWorkbench();
  const length = (label: string, value: string, path: readonly (string | number)[], least = 0) => (
    <LengthStone
      label={label}
      value={value}
      rateHz={kit.rate}
      rounding="atLeast"
      least={least}
      onChange={next => workbench.editKit(`${label} ${next}`, now => writeAt(now, ["stage", ...path], next))}
      beginStep={workbench.beginStep}
    />
  );
  const setLine = (k: number, line: Line) =>
    workbench.editKit(`the opponent's line: ${line.does}`, now => writeAt(now, ["stage", "script", k], line));
  const turn = (k: number, does: string) => {
    const { at } = stage.script[k]!;
    setLine(k, does === "strike" ? { at, does } : { at, does: does as Line["does"], for: LASTS });
  };
  const add = () =>
    workbench.editKit("added a line to the opponent's script", now => {
      const script = readAt(now, ["stage", "script"]) as readonly Line[];
      const last = Math.max(0, ...script.map(line => parseFrames(line.at, now.rate, "atLeast") ?? 0));
      return writeAt(now, ["stage", "script"], [...script, { at: `${last + 90}f`, does: "strike" }]);
    });
  return (
    <section aria-label="The opponent's script" className="text-sm leading-loose" data-testid="duel-script">
      <h2 className="leading-normal font-semibold">The opponent's script</h2>
      <ol>
        {stage.script.map((line, k) => (
          <li key={k} className="flex items-baseline gap-1.5">
            <span className="grow">
              At {length(`when it does its ${k + 1}.`, line.at, ["script", k, "at"])} it{" "}
              <ChoiceWord
                label={`what it does ${k + 1}.`}
                value={line.does}
                choices={DEEDS}
                onChoose={does => turn(k, does)}
              />
              {line.for !== undefined && (
                <> for {length(`how long it does its ${k + 1}.`, line.for, ["script", k, "for"], 1)}</>
              )}
            </span>
            <button
              type="button"
              className="text-soft hover:text-foxglove"
              aria-label={`× Take out what it does ${k + 1}.`}
              onClick={() =>
                workbench.editKit("took a line out of the opponent's script", now =>
                  writeAt(
                    now,
                    ["stage", "script"],
                    stage.script.filter((_, other) => other !== k),
                  ),
                )
              }
            >
              ×
            </button>
          </li>
        ))}
      </ol>
      <Button look="quiet" className="-ml-2" onClick={add}>
        … and does one thing more
      </Button>
      <p>After {length("when the script begins again", stage.every, ["every"], 1)} it begins again.</p>
      <p>
        <KeptMarks>
          Its strike takes {length("startup of its strike", stage.strike.startup, ["strike", "startup"])} to
          start, is active for {length("active of its strike", stage.strike.active, ["strike", "active"], 1)}{" "}
          and recovers for {length("recovery of its strike", stage.strike.recovery, ["strike", "recovery"])}.
        </KeptMarks>
      </p>
      <BeingHit kit={kit} stage={stage} length={length} />
      <OwnBlows kit={kit} stage={stage} length={length} />
      <Distances stage={stage} />
    </section>
  );
}
