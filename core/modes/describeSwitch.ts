import type { Kit } from "../kit/schema";
import {
  choice,
  gate,
  ref,
  swap,
  words,
  type Option,
  type SentencePart,
  type SwapOption,
} from "../kit/sentence";

export type Switch = NonNullable<Kit["switches"]>[number];

const TURNS: readonly Option[] = [
  { value: "open", label: "opens", hint: "on the frame on which the gate opens" },
  { value: "closed", label: "closes", hint: "on the frame on which the gate closes" },
];

/** Returns the switch with each other source it could watch. */
function sources(kit: Kit): SwapOption[] {
  const gateId = kit.gates?.[0]?.id;
  const moveId = kit.moves?.[0]?.id;
  return [
    ...(gateId === undefined
      ? []
      : [
          {
            value: "gate",
            label: "gate",
            hint: "when a gate opens or closes",
            becomes: { gate: gateId, turns: "open" },
          },
        ]),
    ...(moveId === undefined
      ? []
      : [
          {
            value: "move",
            label: "move",
            hint: "on the frame after a move is performed",
            becomes: { move: moveId },
          },
        ]),
  ];
}

/** Describes a switch between modes as one sentence. Paths are relative to the switch. */
export function describeSwitch({ when, to }: Switch, kit: Kit): SentencePart[] {
  const goes = [words("Goes to "), ref("mode", to, ["to"], "mode it goes to"), words(" when ")];
  if ("gate" in when)
    return [
      ...goes,
      swap("gate", sources(kit), ["when"], "what it watches"),
      words(" "),
      gate(when.gate, ["when", "gate"], "gate it watches"),
      words(" "),
      choice(when.turns, TURNS, ["when", "turns"], "how the gate turns"),
    ];
  return [
    ...goes,
    swap("move", sources(kit), ["when"], "what it watches"),
    words(" "),
    ref("move", when.move, ["when", "move"], "move it watches"),
    words(" was performed on the frame before"),
  ];
}
