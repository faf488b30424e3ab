import { beforeEach, expect, test, vi } from "vitest";
import type { Kit, Take } from "#core";
import { applyLayout, layoutOf } from "../edits/edits";
import { takeUpLeft } from "../storage/leftBehind";
import {
  addTake,
  arrangeTape,
  beginGesture,
  closeKit,
  compileOnce,
  editKit,
  editLayouts,
  evaluateOnce,
  keepVariant,
  leaveNow,
  redo,
  removeTake,
  removeVariant,
  takeUpVariant,
  undo,
  workbench,
} from "./workbench";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [["key:KeyA"]] }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
};

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 60,
  lanes: {
    a: [
      [5, 1],
      [40, 0],
    ],
  },
};

const lengthNow = () => (workbench.getState().kit?.patterns[0] as { for?: string }).for;
const setLength = (frames: number) =>
  editKit("length", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, for: `${frames}f` } as Kit["patterns"][number]],
  }));

const shelf = new Map<string, string>();

beforeEach(() => {
  shelf.clear();
  vi.stubGlobal("localStorage", {
    setItem: (key: string, value: string) => shelf.set(key, value),
    getItem: (key: string) => shelf.get(key) ?? null,
    removeItem: (key: string) => shelf.delete(key),
  });
  closeKit();
  workbench.setState({ kit: KIT, takes: [TAKE], openTakeId: "t" });
  workbench.temporal.getState().clear();
});

test("hundreds of edits are undone one by one, over kit and takes alike", () => {
  for (let n = 1; n <= 300; n++) setLength(n);
  removeTake("t");
  undo();
  expect(workbench.getState().takes).toEqual([TAKE]);
  for (let n = 0; n < 300; n++) undo();
  expect(lengthNow()).toBe("10f");
  redo();
  expect(lengthNow()).toBe("1f");
});

test("a movement of the hand is one step of undo, however many edits it makes", () => {
  const gesture = beginGesture();
  for (const frames of [11, 12, 13]) {
    setLength(frames);
    gesture.edited();
  }
  gesture.end();
  expect(lengthNow()).toBe("13f");
  undo();
  expect(lengthNow()).toBe("10f");
});

test("a movement broken off leaves nothing changed and nothing to undo", () => {
  const gesture = beginGesture();
  setLength(20);
  gesture.edited();
  gesture.cancel();
  expect(lengthNow()).toBe("10f");
  expect(workbench.temporal.getState().pastStates.length).toBe(0);
});

test("a variant keeps the rules as they stand, is taken up again, and can be forgotten and brought back", () => {
  keepVariant("v", "Variant 1");
  setLength(30);
  takeUpVariant("v");
  expect(lengthNow()).toBe("10f");
  undo();
  expect(lengthNow()).toBe("30f");
  removeVariant("v");
  expect(workbench.getState().variants).toEqual([]);
  undo();
  expect(workbench.getState().variants.map(variant => variant.name)).toEqual(["Variant 1"]);
});

test("layouts are a step of undo, the order of rows is none", () => {
  editLayouts("kept", () => [layoutOf(KIT, "l", "Mine")]);
  arrangeTape(rows => ({ ...rows, folded: ["gates"] }));
  undo();
  expect(workbench.getState().layouts).toEqual([]);
  expect(workbench.getState().rows.folded).toEqual(["gates"]);
  const other = { ...layoutOf(KIT, "l", "Mine"), bindings: { a: [["pad:0"]] } };
  editKit("put on", kit => applyLayout(kit, other));
  expect(workbench.getState().kit!.controls[0]!.bindings).toEqual([["pad:0"]]);
});

test("a kit with a fault keeps the last program that worked, and says what is wrong", () => {
  const good = compileOnce(workbench.getState().kit).program;
  editKit("broken", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, control: "gone" } as Kit["patterns"][number]],
  }));
  const broken = compileOnce(workbench.getState().kit);
  expect(broken.program).toBe(good);
  expect(broken.faults[0]).toMatchObject({ code: "unknown-id", path: ["patterns", 0, "control"] });
});

test("a stage that does not read is a fault of the kit, with its path", () => {
  editKit("staged", kit => ({ ...kit, stage: { kind: "runner", tilePx: 32 } }));
  const { faults } = compileOnce(workbench.getState().kit);
  expect(faults.map(issue => issue.path.join("."))).toContain("stage.level");
});

test("a take is run once for each version of the rules", () => {
  const { program } = compileOnce(workbench.getState().kit);
  const first = evaluateOnce(program!, TAKE);
  expect(evaluateOnce(program!, TAKE)).toBe(first);
  setLength(12);
  const next = compileOnce(workbench.getState().kit).program!;
  expect(evaluateOnce(next, TAKE)).not.toBe(first);
});

test("what is not yet written when the page is left is set aside at once, and taken up once", () => {
  addTake({ ...TAKE, id: "t2", name: "Second" });
  setLength(15);
  leaveNow();
  const left = takeUpLeft()!;
  expect(left.kit.kit.patterns[0]).toMatchObject({ for: "15f" });
  expect(left.takes.map(record => record.takeId)).toEqual(["t", "t2"]);
  expect(takeUpLeft()).toBeUndefined();
});

test("where nothing can be set aside, leaving is no error", () => {
  vi.stubGlobal("localStorage", {
    setItem: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
    getItem: () => "{torn",
    removeItem: () => undefined,
  });
  const told = vi.spyOn(console, "info").mockImplementation(() => undefined);
  setLength(15);
  expect(leaveNow).not.toThrow();
  expect(takeUpLeft()).toBeUndefined();
  expect(told).toHaveBeenCalledTimes(2);
});
