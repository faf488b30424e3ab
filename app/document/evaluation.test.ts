import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { readKitAndTake } from "../tests/evaluated";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";

const { kit, take } = readKitAndTake("e2e/belfry", "clean-climb");
const short: Take = { ...take, kit: kit.id };
const other: Take = { ...short, id: "other", name: "Other", frames: 90 };
const long: Take = { ...short, id: "long", name: "Long", frames: 30_000 };

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, kit, [short, other, long]);
});

const evaluation = () => tab.evaluation.getState();
const playback = () => tab.playback.getState();

test("opening another take resets everything about the last one in the same task", () => {
  tab.playback.goTo(40);
  tab.playback.setState({ stretch: { from: 10, to: 20 }, isLooping: true });
  tab.playback.toggle();
  expect(playback().isPlaying).toBe(true);
  tab.workbench.openTake("other");
  expect(playback()).toMatchObject({ frame: 0, stretch: undefined, isLooping: false, isPlaying: false });
  expect(evaluation().evaluated?.take.id).toBe("other");
});

test("an edit of the open take keeps the place, and a shorter one brings the playhead within it", () => {
  tab.playback.goTo(80);
  tab.workbench.editTake("shorter", short.id, old => ({ ...old, frames: 50 }));
  expect(playback().frame).toBe(49);
});

test("a replay ends with the kit it belongs to", async () => {
  tab.playback.setState({ stretch: { from: 10, to: 20 }, isLooping: true });
  tab.playback.toggle();
  await tab.workbench.close();
  expect(playback().isPlaying).toBe(false);
  expect(evaluation()).toMatchObject({ evaluated: undefined, rules: undefined });
  tab.turn(500);
  expect(playback().frame).toBe(0);
});

test("a long take is evaluated by a worker; the answer about another is never shown, trouble ends with its take", async () => {
  tab.workbench.openTake("long");
  expect(evaluation()).toMatchObject({ evaluated: undefined });
  await until(() => evaluation().askedAtMs !== undefined);
  tab.workbench.openTake("other");
  expect(evaluation().evaluated?.take.id).toBe("other");
  expect(evaluation().askedAtMs).toBeUndefined();
  tab.workbench.openTake("long");
  await until(() => evaluation().evaluated?.take.id === "long");
  expect(evaluation().evaluated?.trace.frames).toBe(30_000);
});

test("while a long take is evaluated again, its last result remains until the new one arrives", async () => {
  tab.workbench.openTake("long");
  await until(() => evaluation().evaluated?.take.id === "long");
  const before = evaluation().evaluated;
  tab.workbench.editKit("name", (old: Kit) => ({ ...old, moves: [] }));
  expect(evaluation().evaluated).toBe(before);
  await until(() => evaluation().evaluated !== before);
  expect(evaluation().evaluated?.program.moves.length).toBe(0);
});

test("a kit without a take can be played, and has its issues listed", () => {
  for (const { id } of [short, other, long]) tab.workbench.removeTake(id);
  expect(evaluation()).toMatchObject({ evaluated: undefined, isSound: true });
  tab.workbench.editKit("broken", old => ({ ...old, controls: [] }));
  expect(evaluation()).toMatchObject({ isSound: false });
  expect(evaluation().rules?.kit.controls).toEqual(kit.controls);
});
