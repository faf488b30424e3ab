import { deleteAt, writeAt, type Kit, ownValue } from "#core";
import { effectsOf, stageOf, type RunnerDocument } from "#stage";
import { widthOf } from "../../edits/levelEdits";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { LengthStone } from "../../ui/LengthStone";
import { GateWord } from "../GateWord";
import { BeamWords } from "./BeamWords";
import { useWorkbench } from "../../document/workbenchContext";
import { KeptMarks } from "../../ui/KeptMarks";

/** The gates of the body, in the order of the sentence. */
const PLACES = [
  { words: "It opens", place: "footing", after: "on the ground,", suggested: "Footing" },
  { words: "", place: "rising", after: "going up,", suggested: "Rising" },
  { words: "", place: "falling", after: "coming down,", suggested: "Falling" },
  { words: "", place: "wall", after: "at a wall and", suggested: "Wall" },
  { words: "", place: "ceiling", after: "under a ceiling.", suggested: "Ceiling" },
] as const;

const STEERS = [
  { value: "keys", label: "its keys", hint: "a direction moves it whatever the rules do" },
  { value: "rules", label: "the rules", hint: "only while some pattern sees that direction" },
];

/** The controls that aim a dash up and down, as a part of a sentence. */
function AimWords({ kit, run }: { kit: Kit; run: RunnerDocument["run"] }) {
  const workbench = useWorkbench();
  const word = (side: "up" | "down") => (
    <ChoiceWord
      label={`control that aims ${side}`}
      value={run[side] ?? ""}
      choices={[
        { value: "", label: "nothing" },
        ...kit.controls.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChoose={value =>
        workbench.editKit(`aimed ${side}`, now =>
          value === "" ? deleteAt(now, ["stage", "run", side]) : writeAt(now, ["stage", "run", side], value),
        )
      }
    />
  );
  return (
    <>
      A dash is aimed up by {word("up")} and down by {word("down")}.
    </>
  );
}

/** Returns a kit in which the k-th gate that halts the body is another, a further one, or none. */
function writeHalt(kit: Kit, k: number, gate: string | undefined): Kit {
  const halts = [...((kit.stage as RunnerDocument).halts ?? [])];
  halts.splice(k, 1, ...(gate === undefined ? [] : [gate]));
  return halts.length > 0
    ? writeAt(kit, ["stage", "halts"], [...new Set(halts)])
    : deleteAt(kit, ["stage", "halts"]);
}

/** The gates that keep every direction from the body, and who steers it, as a sentence. */
function Steering({ kit, stage }: { kit: Kit; stage: RunnerDocument }) {
  const workbench = useWorkbench();
  const isAimed = kit.moves?.some(move => effectsOf(move).some(({ effect }) => "aim" in effect)) ?? false;
  return (
    <p>
      <KeptMarks>
        No direction reaches the body while{" "}
        {[...(stage.halts ?? []), undefined].map((gate, k) => (
          <span key={k}>
            {k > 0 && " or "}
            <GateWord
              kit={kit}
              label={`gate ${k + 1} that halts the body`}
              value={gate}
              path={(now, chosen) => writeHalt(now, k, chosen)}
              suggested="Stunned"
            />
          </span>
        ))}{" "}
        is open. It is steered by{" "}
        <ChoiceWord
          label="who steers the body"
          value={stage.run.steers ?? "keys"}
          choices={STEERS}
          onChoose={value =>
            workbench.editKit(`steered by ${value}`, now =>
              value === "keys"
                ? deleteAt(now, ["stage", "run", "steers"])
                : writeAt(now, ["stage", "run", "steers"], value),
            )
          }
        />
        . {isAimed && <AimWords kit={kit} run={stage.run} />}
      </KeptMarks>
    </p>
  );
}

/** The gates that the runner's body opens, how long the ground is reported, and the level as rows of text. */
export function RunnerGates({ kit }: { kit: Kit }) {
  const stage = stageOf(kit);
  return stage?.kind === "runner" ? <Gates kit={kit} stage={stage} /> : null;
}

function Gates({ kit, stage }: { kit: Kit; stage: RunnerDocument }) {
  const workbench = useWorkbench();
  const letters = [
    ...new Set([...Object.keys(stage.zones ?? {}), ...stage.level.join("").replace(/[^a-z]/g, "")]),
  ].sort();
  const lag = stage.groundLag ?? "0f";
  const setLag = (value: string) =>
    workbench.editKit(`ground reported ${value}`, now =>
      value === "0f" ? deleteAt(now, ["stage", "groundLag"]) : writeAt(now, ["stage", "groundLag"], value),
    );
  return (
    <section aria-label="What the stage opens" className="text-sm leading-loose" data-testid="runner-gates">
      <h2 className="leading-normal font-semibold">What the stage opens</h2>
      <p>
        <KeptMarks>
          {PLACES.map(({ words, place, after, suggested }) => (
            <span key={place}>
              {words}{" "}
              <GateWord
                kit={kit}
                label={`gate ${after.replace(/[,.]| and$/g, "")}`}
                value={stage.gates[place]}
                path={["stage", "gates", place]}
                suggested={suggested}
              />{" "}
              {after}{" "}
            </span>
          ))}
          After leaving it, the body still counts as on the ground for{" "}
          <LengthStone
            label="ground still reported"
            value={lag}
            rateHz={kit.rate}
            rounding="atLeast"
            least={0}
            onChange={setLag}
            beginStep={workbench.beginStep}
          />
          .
        </KeptMarks>
      </p>
      <Steering kit={kit} stage={stage} />
      {letters.map(letter => (
        <p key={letter}>
          <KeptMarks>
            Where the level has <b className="font-mono">{letter}</b> it opens{" "}
            <GateWord
              kit={kit}
              label={`gate of ${letter}`}
              value={ownValue(stage.zones, letter)}
              path={["stage", "zones", letter]}
              suggested={`Place ${letter}`}
            />
            .
          </KeptMarks>
        </p>
      ))}
      <BeamWords kit={kit} stage={stage} />
      <details>
        <summary className="cursor-pointer text-moss">The level as text</summary>
        <textarea
          aria-label="The level as rows of text"
          className="w-full overflow-auto rounded-lg border border-edge bg-leaf p-2 font-mono text-[11px] leading-tight whitespace-pre"
          rows={stage.level.length + 1}
          cols={widthOf(stage.level)}
          spellCheck={false}
          value={stage.level.join("\n")}
          onChange={event => {
            const rows = event.target.value.split("\n");
            workbench.editKit("level", now => writeAt(now, ["stage", "level"], rows));
          }}
        />
        <p className="leading-normal text-soft">
          # is a beam, - a thin one, @ where the body starts, a letter a place that opens a gate, anything
          else air.
        </p>
      </details>
    </section>
  );
}
