import { expect, test } from "vitest";
import type { Kit } from "#core";
import { sketchKit } from "../../../core/tests/strips";
import { controlOf, listSwept } from "./sweptNumbers";

const KIT: Kit = sketchKit("ab", {
  patterns: [
    { id: "p", name: "P", kind: "press", control: "a" },
    { id: "both", name: "Both", kind: "chord", controls: ["a", "b"], spread: "3f" },
    { id: "asked", name: "Asked", kind: "hold", control: "b", for: "9f", fire: "reach" },
    { id: "idle", name: "Idle", kind: "hold", control: "a", for: "9f", fire: "reach" },
  ],
  prompts: [{ id: "now", name: "Now", ask: ["asked"], starts: { at: "0f" }, window: "30f" }],
  moves: [
    { id: "hop", name: "Hop", pattern: "p", buffer: "2f" },
    { id: "slam", name: "Slam", pattern: "both", buffer: "3f" },
  ],
});
const controlFor = (key: string) =>
  controlOf(
    KIT,
    listSwept(KIT).find(choice => choice.key === key)!,
  );

test("the control of a number is the one on which its move is played, or the pattern that a prompt asks for", () => {
  expect(["moves.0.buffer", "patterns.2.for"].map(controlFor)).toEqual(["a", "b"]);
  // Two controls, a pattern that nothing uses, and a number of several rules have none.
  expect(["moves.1.buffer", "patterns.3.for", "group buffers"].map(controlFor)).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});
