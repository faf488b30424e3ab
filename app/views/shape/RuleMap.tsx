import type { Kit } from "#core";
import { CurveEditor } from "../../maps/CurveEditor";
import { PressLengthMap } from "../../maps/PressLengthMap";
import { SequenceLadder } from "../../maps/SequenceLadder";
import { TapLadder } from "../../maps/TapLadder";
import { WindowMap } from "../../maps/WindowMap";
import { useSoundKit } from "../../document/useWorkbench";
import type { RuleItem } from "./rules";

/** The map of time beside a rule's sentence, which is its editor too. */
export function RuleMap({ kit, rule }: { kit: Kit; rule: RuleItem }) {
  const isSound = useSoundKit() === kit;
  if (!isSound) {
    return (
      <p className="mt-4 text-sm text-soft">
        Its map of time comes back when the kit can be played again: rules with something to mend say so.
      </p>
    );
  }
  if (rule.list === "moves") {
    const move = kit.moves![rule.index]!;
    return (move.needs ?? []).map((need, k) => (
      <WindowMap key={need.gate} kit={kit} move={move} index={rule.index} need={k} />
    ));
  }
  if (rule.list !== "patterns") return null;
  const pattern = kit.patterns[rule.index]!;
  switch (pattern.kind) {
    case "tap":
    case "hold":
      return <PressLengthMap controlId={pattern.control} />;
    case "charge":
      return (
        <>
          <PressLengthMap controlId={pattern.control} />
          <CurveEditor pattern={pattern} index={rule.index} />
        </>
      );
    case "taps":
      return <TapLadder pattern={pattern} index={rule.index} />;
    case "sequence":
      return <SequenceLadder pattern={pattern} index={rule.index} />;
    default:
      return null;
  }
}
