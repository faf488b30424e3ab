import { expect, test } from "vitest";
import { parseLayout, type PadMap } from "#core";
import { createBrowser, openKit, openTab } from "../tests/testWorld";
import { layoutOf } from "../edits/layoutEdits";
import { createPadMaps } from "./padMaps";
import type { PadReading } from "./gamepads";

const MAP: PadMap = {
  pad: "Stranger",
  buttons: [{ is: 0, source: { kind: "axis", axis: 2, from: -1, to: 1 } }],
  axes: [{ is: 0, axis: 1, rest: 0.1, full: -1 }],
};
const stranger = (id: string, axes: readonly number[]): PadReading => ({
  index: 0,
  id,
  mapping: "",
  connected: true,
  buttons: [{ value: 1 }],
  axes,
});

/** Creates a store as a browser has it. */
function createLocalStore(): Storage {
  const held = new Map<string, string>();
  return {
    getItem: key => held.get(key) ?? null,
    setItem: (key, value) => void held.set(key, value),
    removeItem: key => void held.delete(key),
    key: n => [...held.keys()][n] ?? null,
    clear: () => held.clear(),
    get length() {
      return held.size;
    },
  };
}

test("a map is kept in the browser by the pad's id, and read again; other pads are read as they are", () => {
  const store = createLocalStore();
  const pads = [stranger("Stranger", [0, -1, 0]), stranger("Another", [0, 0.5]), null];
  createPadMaps(store, () => pads).keep(MAP);
  const read = createPadMaps(store, () => pads).read!();
  expect(read[0]).toMatchObject({ mapping: "standard", axes: [1, 0, 0, 0] });
  expect(read[0]!.buttons[0]!.value).toBe(0.5);
  expect(read[1]).toBe(pads[1]);
  expect(read[2]).toBe(null);
  const standard = { ...stranger("Stranger", [0]), mapping: "standard" };
  expect(createPadMaps(store, () => [standard]).read!()[0]).toBe(standard);
});

test("what does not read, and a browser that keeps nothing, mean no map; a later one lasts as long as the page", () => {
  const broken = createLocalStore();
  broken.setItem("moss-tap-pads", '[{"pad": 3}]');
  expect(createPadMaps(broken, undefined).getState()).toEqual([]);
  const refusing: Storage = {
    ...createLocalStore(),
    getItem: () => {
      throw new Error("forbidden");
    },
    setItem: () => {
      throw new Error("forbidden");
    },
  };
  const maps = createPadMaps(refusing, () => [stranger("Stranger", [0, 0, 1])]);
  maps.keep(MAP);
  expect(maps.read!()[0]!.buttons[0]!.value).toBe(1);
  maps.forget("Stranger");
  expect(maps.getState()).toEqual([]);
});

test("a layout carries the maps; one that is put on brings those that the browser lacks, and changes none", () => {
  const maps = createPadMaps(undefined, undefined);
  const own = { ...MAP, buttons: [] };
  maps.keep(own);
  expect(maps.keepMissing([MAP, { ...MAP, pad: "Another" }])).toEqual([{ ...MAP, pad: "Another" }]);
  expect(maps.getState()[0]).toBe(own);
  const kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: [],
    patterns: [],
  } as const;
  expect(layoutOf(kit, "l", "L", maps.getState()).pads).toEqual(maps.getState());
  expect("pads" in layoutOf(kit, "l", "L")).toBe(false);
  // A layout reads again, however many pads were mapped.
  const many = Array.from({ length: 30 }, (_, n) => ({ ...MAP, pad: `Pad ${n}` }));
  const layout = layoutOf(kit, "l", "L", many);
  expect(parseLayout(JSON.parse(JSON.stringify(layout)))).toMatchObject({ ok: true, value: layout });
  expect(layout.pads!.at(-1)).toBe(many.at(-1));
});

test("a mapped pad plays a control that is bound to a standard button", async () => {
  const tab = openTab(createBrowser(), { readPads: () => [stranger("Stranger", [0, 0, 1])] });
  await openKit(tab, {
    ...{ format: "moss-tap/kit", version: 1, id: "k", name: "K", rate: 60, patterns: [] },
    controls: [{ id: "a", name: "A", bindings: [["pad:0"]] }],
  });
  tab.pad.maps.keep(MAP);
  tab.pad.wake();
  tab.turn(17);
  tab.turn(17);
  expect(tab.pad.getState().session!.state.down[0]).toBe(1);
  expect(tab.pad.getState().pads.pads).toMatchObject([{ id: "Stranger", isStandard: true }]);
});
