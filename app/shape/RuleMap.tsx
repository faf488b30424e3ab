import type { ReactNode } from "react";
import { traitsOf, type Kit, type Pattern, type PatternProgram, type PatternTraits } from "#core";
import { BanMap } from "../maps/BanMap";
import { ChainMap } from "../maps/ChainMap";
import { CurveEditor } from "../maps/CurveEditor";
import { PressLengthMap } from "../maps/PressLengthMap";
import { PromptMap } from "../maps/PromptMap";
import { SequenceLadder } from "../maps/SequenceLadder";
import { TapLadder } from "../maps/TapLadder";
import { TimelineMap } from "../maps/TimelineMap";
import { WindowMap } from "../maps/WindowMap";
import type { RuleItem } from "./model/rules";
import { useSoundKit } from "../document/evaluationContext";
import { Region } from "../ui/Region";

type MapName = PatternTraits<Pattern, PatternProgram>["maps"][number];
type AnyMap = (props: { pattern: never; index: number }) => ReactNode;

/** The component of every map a kind of pattern can ask for. */
const MAPS: Readonly<Record<MapName, AnyMap>> = {
  "press-length": ({ pattern }: { pattern: Extract<Pattern, { control: string }> }) => (
    <PressLengthMap controlId={pattern.control} openId={pattern.id} />
  ),
  curve: CurveEditor,
  taps: TapLadder,
  sequence: SequenceLadder,
};

/** The editable map of time beside a rule's sentence; an error in it leaves the sentence working. */
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
        Its map of time comes back when the kit can be played again: rules with faults are marked.
      </p>
    );
  }
  if (rule.list === "moves") {
    const move = kit.moves![rule.index]!;
    const busy = `busy:${move.slot ?? "main"}`;
    // Presses during its own slot's busy time are already shown by the timeline.
    const bans = (move.bans ?? [])
      .map((gate, k) => ({ gate, k }))
      .filter(({ gate }) => gate !== busy || !move.frames);
    return (
      <>
        {(move.needs ?? []).map((need, k) => (
          <WindowMap key={need.gate} kit={kit} move={move} index={rule.index} need={k} />
        ))}
        {bans.map(({ gate, k }) => (
          <BanMap key={gate} kit={kit} move={move} index={rule.index} ban={k} />
        ))}
        <TimelineMap kit={kit} move={move} index={rule.index} />
        <ChainMap kit={kit} index={rule.index} />
      </>
    );
  }
  if (rule.list === "prompts")
    return <PromptMap kit={kit} prompt={kit.prompts![rule.index]!} index={rule.index} />;
  if (rule.list !== "patterns") return null;
  const pattern = kit.patterns[rule.index]!;
  return traitsOf(pattern.kind).maps.map(map => {
    const Map = MAPS[map];
    return <Map key={map} pattern={pattern as never} index={rule.index} />;
  });
}
