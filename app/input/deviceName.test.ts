import { expect, test } from "vitest";
import { deviceName } from "./deviceName";

const pad = (index: number, name: string) => ({ index, id: name, name, isStandard: true });
const ONE = [pad(0, "Twig")];
const TWO = [pad(0, "Twig"), pad(2, "Reed")];

test.each([
  ["key:KeyA", TWO, "keys"],
  ["mouse:0", TWO, "mouse"],
  ["wheel:up", TWO, "mouse"],
  ["screen:leap", TWO, "screen"],
  ["pad:0", ONE, "Twig"],
  ["pad:0", TWO, "pad"],
  ["pad3:0", TWO, "Reed"],
  ["pad2:0", TWO, "pad"],
  ["pad:0", [], "pad"],
])("%s of pads %j is %s", (code, pads, name) => expect(deviceName(code, pads)).toBe(name));
