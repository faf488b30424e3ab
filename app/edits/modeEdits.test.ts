import { expect, test } from "vitest";
import { parseLayout, type Kit } from "#core";
import { addStick, setThresholds } from "./controlEdits";
import { removeAt } from "./kitEdits";
import { applyLayout, layoutOf } from "./layoutEdits";
import { addMode, isActiveIn, removeMode, setActiveIn, freshSwitch } from "./modeEdits";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: ["up", "down", "left", "right"].map(id => ({ id, name: id, bindings: [[`key:${id}`]] })),
  gates: [{ id: "g", name: "G" }],
  patterns: [
    { id: "p", name: "P", kind: "press", control: "up" },
    { id: "q", name: "Q", kind: "press", control: "down", modes: ["air"] },
  ],
  modes: [
    { id: "ground", name: "Ground" },
    { id: "air", name: "Air" },
  ],
  start: "air",
  switches: [
    { when: { gate: "g", turns: "open" }, to: "ground" },
    { when: { gate: "g", turns: "closed" }, to: "air" },
  ],
};

test("a rule active everywhere names no modes; in the last of its modes it names none but an empty list", () => {
  const off = setActiveIn(KIT, "patterns", "p", "air", false);
  expect(off.patterns[0]!.modes).toEqual(["ground"]);
  expect(isActiveIn(off.patterns[0]!, "air")).toBe(false);
  const none = setActiveIn(off, "patterns", "p", "ground", false);
  expect(none.patterns[0]!.modes).toEqual([]);
  const all = setActiveIn(setActiveIn(none, "patterns", "p", "air", true), "patterns", "p", "ground", true);
  expect("modes" in all.patterns[0]!).toBe(false);
});

test("a mode that goes takes its switches and its name in the rules with it, and the start if it was it", () => {
  const gone = removeMode(KIT, "air");
  expect(gone.modes!.map(mode => mode.id)).toEqual(["ground"]);
  expect(gone.switches!.map(item => item.to)).toEqual(["ground"]);
  expect(gone.start).toBeUndefined();
  expect("modes" in gone.patterns[1]!).toBe(false);
  const bare = removeMode(gone, "ground");
  expect([bare.modes, bare.switches]).toEqual([undefined, undefined]);
  expect(addMode(bare).modes![0]!.name).toBe("Ground");
});

test("the last item of a list takes the field with it", () => {
  const one = addStick(KIT, "Stick", { up: "up", down: "down", left: "left", right: "right" });
  expect(one.sticks![0]!.id).toBe("stick");
  expect("sticks" in removeAt(one, "sticks", 0)).toBe(false);
});

test("press and release points stay in order whichever is moved", () => {
  const points = (kit: Kit) => [kit.controls[0]!.pressAt, kit.controls[0]!.releaseAt];
  expect(points(setThresholds(KIT, ["up"], "pressAt", 0.3))).toEqual([0.3, 0.3]);
  expect(points(setThresholds(KIT, ["up"], "releaseAt", 0.72))).toEqual([0.72, 0.72]);
  expect(points(setThresholds(KIT, ["up"], "pressAt", 7))).toEqual([1, 0.4]);
  expect(setThresholds(KIT, ["up"], "pressAt", 0.3).controls[1]!.pressAt).toBeUndefined();
});

test("an applied layout changes only the controls it names, and parses back from its file", () => {
  const layout = layoutOf(KIT, "l", "Mine");
  expect(parseLayout(JSON.parse(JSON.stringify(layout)))).toMatchObject({ ok: true });
  const other = { ...layout, bindings: { up: [["pad:12"]], stranger: [["pad:1"]] } };
  const worn = applyLayout(KIT, other);
  expect(worn.controls.map(control => control.bindings[0]![0])).toEqual([
    "pad:12",
    "key:down",
    "key:left",
    "key:right",
  ]);
  expect(parseLayout({ ...layout, bindings: { up: [["KeyJ"]] } })).toMatchObject({ ok: false });
});

test("each added switch differs, until there is one for everything", () => {
  let kit: Kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: [],
    patterns: [],
    gates: [{ id: "g", name: "G" }],
    modes: [
      { id: "ground", name: "Ground" },
      { id: "air", name: "Air" },
    ],
  };
  for (let fresh = freshSwitch(kit); fresh; fresh = freshSwitch(kit))
    kit = { ...kit, switches: [...(kit.switches ?? []), fresh] };
  expect(kit.switches).toEqual([
    { when: { gate: "g", turns: "open" }, to: "air" },
    { when: { gate: "g", turns: "closed" }, to: "ground" },
  ]);
});
