import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { openKit, openTab, type TestTab } from "../../tests/testWorld";
import { arrangeRows } from "../model/arrangeRows";
import { findRow, keyOfRow } from "../model/tapeRows";
import { buildTape } from "../model/buildTape";
import type { TapeController } from "./tapeController";
import { pressTapeKey, TAPE_KEYS, type TapeKeysTarget } from "./tapeKeys";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "keys",
  name: "Keys",
  rate: 60,
  controls: ["a", "b"].map(id => ({ id, name: id.toUpperCase(), bindings: [] })),
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
};

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 80,
  lanes: {
    a: [
      [10, 1],
      [14, 0],
      [40, 1],
      [44, 0],
    ],
  },
};

let tab: TestTab;
let chosen = "";
const zooms: unknown[][] = [];

function target(): TapeKeysTarget {
  const now = tab.evaluation.getState().evaluated!;
  const { settings } = tab.workbench.getState();
  const whole = buildTape(now.rules, now.trace, now.take);
  const model = arrangeRows(whole, settings);
  return {
    desk: tab,
    tape: tab.tape,
    model,
    whole,
    controller: {
      reveal: () => undefined,
      revealRow: () => undefined,
      zoom: (factor: number) => zooms.push(["zoom", factor]),
      showFrames: (from: number, to: number) => zooms.push(["show", from, to]),
    } as unknown as TapeController,
    row: findRow(model.rows, chosen),
    chooseRow: next => (chosen = keyOfRow(model.rows[next]!)),
    openFate: (at, frame) => zooms.push(["fate", at, frame]),
    openSheet: () => zooms.push(["sheet"]),
  };
}

const press = (key: string, held: { shift?: boolean; alt?: boolean } = {}) =>
  pressTapeKey({ key, shiftKey: held.shift ?? false, altKey: held.alt ?? false }, target());

const frame = () => tab.playback.getState().frame;

beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, [TAKE]);
  chosen = "";
  zooms.length = 0;
});

test("arrows step by a frame, with Shift by ten, and stay within the take", () => {
  press("ArrowRight");
  press("ArrowRight", { shift: true });
  expect(frame()).toBe(11);
  press("ArrowLeft");
  expect(frame()).toBe(10);
  press("End");
  press("ArrowRight");
  expect(frame()).toBe(79);
  press("Home");
  expect(frame()).toBe(0);
});

test("brackets go from event to event, braces within the chosen row", () => {
  press("]");
  expect(frame()).toBe(10);
  press("]");
  expect(frame()).toBeGreaterThan(10);
  press("Home");
  press("}");
  press("}");
  expect(frame()).toBe(40);
  press("{");
  expect(frame()).toBe(10);
});

test("brackets go through presses and what the rules do, and M makes a check of each but the presses", async () => {
  const move = { id: "m", name: "M", pattern: "q", frames: { startup: "3f", active: "2f", recovery: "4f" } };
  const hold = { id: "q", name: "Q", kind: "hold", control: "a", for: "3f", fire: "reach" } as const;
  await openKit(tab, { ...KIT, id: "phases", patterns: [hold], moves: [move] }, [TAKE]);
  const seen: number[] = [];
  for (let k = 0; k < 7; k++) {
    press("]");
    seen.push(frame());
    press("m");
  }
  // A press, the move with its startup, its release, then its parts, and the next press.
  expect(seen).toEqual([10, 13, 14, 16, 18, 22, 40]);
  press("[");
  expect(frame()).toBe(22);
  expect(tab.workbench.getState().checks.map(({ name }) => name)).toEqual([
    "M is performed at 13f",
    "M reaches active at 16f",
    "M reaches recovery at 18f",
    "M is over at 22f",
  ]);
});

test("a stretch is started, ended, zoomed to, looped and cleared by keys", () => {
  press("]");
  press("s");
  for (let k = 0; k < 6; k++) press("ArrowRight");
  press("s");
  expect(tab.playback.getState().stretch).toEqual({ from: 10, to: 16 });
  press("z");
  expect(zooms).toContainEqual(["show", 10, 16]);
  press("l");
  expect(tab.playback.getState().isLooping).toBe(true);
  press("s");
  expect(tab.playback.getState()).toMatchObject({ stretch: undefined, isLooping: false });
});

test("a stretch is cut and pasted elsewhere; both are edits of the take", () => {
  press("]");
  press("s");
  for (let k = 0; k < 6; k++) press("ArrowRight");
  press("s");
  press("x");
  press("End");
  press("ArrowLeft", { shift: true });
  press("ArrowLeft", { shift: true });
  press("v");
  expect(tab.workbench.getState().takes[0]!.lanes.a).toEqual([
    [40, 1],
    [44, 0],
    [59, 1],
    [63, 0],
  ]);
});

test("painting by keys presses for a frame and clears it; without the brush the keys have no action", () => {
  expect(press("f")).toBe(false);
  press("p");
  press("ArrowRight");
  press("f");
  expect(tab.workbench.getState().takes[0]!.lanes.a!.slice(0, 2)).toEqual([
    [1, 1],
    [2, 0],
  ]);
  press("Backspace");
  expect(tab.workbench.getState().takes[0]!.lanes.a).toEqual(TAKE.lanes.a);
});

test("rows are chosen, moved and folded by keys, and the choice goes with them", () => {
  press("ArrowDown", { alt: true });
  expect(target().row).toBe(1);
  expect(
    target()
      .model.rows.map(item => item.name)
      .slice(0, 2),
  ).toEqual(["B", "A"]);
  press("g");
  expect(target().model.rows[0]).toMatchObject({ folded: 2 });
  expect(target().row).toBe(0);
  press("ArrowDown");
  expect(target().row).toBe(1);
});

test("variants are laid over one after the other, then none; strips come and go; digits set the speed", () => {
  tab.workbench.keepVariant("one", "One");
  tab.workbench.keepVariant("two", "Two");
  const over = () => tab.tape.look.getState().laidOver;
  press("o");
  expect(over()).toBe("one");
  press("o");
  expect(over()).toBe("two");
  press("o");
  expect(over()).toBeUndefined();
  const before = tab.tape.look.getState().showsStrips;
  press("t");
  expect(tab.tape.look.getState().showsStrips).toBe(!before);
  press("1");
  expect(tab.playback.getState().speed).toBe(0.125);
});

test("Enter shows the fate at the selected row, ? shows the list of keys, and an unknown key is ignored", () => {
  press("Enter");
  press("?");
  press("+");
  expect(zooms).toEqual([["fate", 0, 0], ["sheet"], ["zoom", 1.25]]);
  expect(press("q")).toBe(false);
});

test("every key of the list has its own action: none is shadowed by another", () => {
  for (const item of TAPE_KEYS) {
    for (const key of item.keys) {
      const pressed = { key, altKey: item.needsAlt ?? false, shiftKey: false };
      const first = TAPE_KEYS.find(other => other.keys.includes(key) && (!other.needsAlt || pressed.altKey));
      expect(first?.words, key).toBe(item.words);
    }
  }
  expect(new Set(TAPE_KEYS.map(item => item.shown)).size).toBe(TAPE_KEYS.length);
});
