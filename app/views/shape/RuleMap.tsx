import type { ReactNode } from "react";
import { traitsOf, type Kit, type Pattern, type PatternProgram, type PatternTraits } from "#core";
import { CurveEditor } from "../../maps/CurveEditor";
import { PressLengthMap } from "../../maps/PressLengthMap";
import { SequenceLadder } from "../../maps/SequenceLadder";
import { TapLadder } from "../../maps/TapLadder";
import { WindowMap } from "../../maps/WindowMap";
import type { RuleItem } from "./rules";
import { useSoundKit } from "../../document/context";
import { Region } from "../../ui/Region";

type MapName = PatternTraits<Pattern, PatternProgram>["maps"][number];
type AnyMap = (props: { pattern: never; index: number }) => ReactNode;

/** Every map of time that a kind of pattern can ask for. */
const MAPS: Readonly<Record<MapName, AnyMap>> = {
  "press-length": ({ pattern }: { pattern: Extract<Pattern, { control: string }> }) => (
    <PressLengthMap controlId={pattern.control} />
  ),
  curve: CurveEditor,
  taps: TapLadder,
  sequence: SequenceLadder,
};

/** The map of time beside a rule's sentence, which is its editor too; what breaks in it leaves the sentence standing. */
export function RuleMap(props: { kit: Kit; rule: RuleItem }) {
  return (
    <Region name="The map" of={`${props.rule.list} ${props.rule.index}`}>
      <Maps {...props} />
    </Region>
  );
}

function Maps({ kit, rule }: { kit: Kit; rule: RuleItem }) {
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
  return traitsOf(pattern.kind).maps.map(map => {
    const Map = MAPS[map];
    return <Map key={map} pattern={pattern as never} index={rule.index} />;
  });
}
