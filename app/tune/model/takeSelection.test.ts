import { expect, test } from "vitest";
import type { Take } from "#core";
import { groupTakes, listLabels, selectTakes } from "./takeSelection";

const take = (id: string, labels: Partial<Take> = {}) => ({ id, name: "", lanes: {}, ...labels }) as Take;
const TAKES = [
  take("1", { player: "Wren", device: "pad" }),
  take("2", { player: "Ada", device: "keys", name: "Clean" }),
  take("3"),
  take("4", { player: "Wren", device: "keys" }),
];
const idsOf = (takes: readonly Take[]) => takes.map(({ id }) => id).join("");

test("takes are selected by player, device, session, or one by one", () => {
  expect(listLabels(TAKES, "player")).toEqual(["Ada", "Wren"]);
  expect(idsOf(selectTakes({ kind: "player", name: "Wren" }, TAKES, undefined))).toBe("14");
  expect(idsOf(selectTakes({ kind: "device", name: "keys" }, TAKES, undefined))).toBe("24");
  expect(idsOf(selectTakes({ kind: "session", name: "Monday" }, TAKES, undefined))).toBe("");
  expect(idsOf(selectTakes({ kind: "open" }, TAKES, "3"))).toBe("3");
  expect(idsOf(selectTakes({ kind: "chosen", ids: ["2", "9"] }, TAKES, "3"))).toBe("2");
});

test("every take is in one group, also without the label", () => {
  const lines = (by: Parameters<typeof groupTakes>[1]) =>
    groupTakes(TAKES, by).map(({ name, ids }) => `${name}: ${[...ids].join("")}`);
  expect(lines("player")).toEqual(["Ada: 2", "Wren: 14", "no player: 3"]);
  expect(lines("take")).toEqual(["1: 1", "Clean: 2", "3: 3", "4: 4"]);
  expect(lines("none")).toEqual([]);
});
