import { beforeEach, expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { isBroken } from "../storage/records";
import { joinRecordings } from "../storage/recordings";
import { documentOf } from "../storage/shelf";
import { SPEEDS } from "./benchKeys";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [
    { id: "a", name: "A", bindings: [["key:KeyA"]] },
    { id: "b", name: "B", bindings: [["key:KeyB"], ["pad:0"]] },
  ],
  gates: [{ id: "g", name: "G" }],
  patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: "10f", fire: "reach" }],
};
const FRAME_MS = 1000 / 60;

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT);
});

const pad = () => tab.pad.getState();
const takes = () => tab.workbench.getState().takes;
const lengthen = (frames: number) =>
  tab.workbench.editKit("length", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, for: `${frames}f` } as Kit["patterns"][number]],
  }));

/** Plays keys as from a page: [event, code, frames to wait], each in the middle of a frame. */
function play(...reports: readonly (readonly ["down" | "up", string, number])[]): void {
  let frame = 0;
  for (const [what, code, at] of reports) {
    for (; frame < at; frame++) tab.turn(FRAME_MS);
    tab
      .page()!
      .report({ code, value: what === "down" ? 1 : 0, isRepeat: false }, tab.timers.nowMs() + FRAME_MS / 2);
  }
}
const wait = (frames: number) => {
  for (let n = 0; n < frames; n++) tab.turn(FRAME_MS);
};

test("a session becomes a take with the same edges, and is opened", () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 10], ["down", "key:KeyB", 14], ["up", "key:KeyA", 30], ["up", "key:KeyB", 31]);
  wait(5);
  tab.page()!.leave();
  expect(takes()).toMatchObject([
    {
      name: "Take 1",
      kit: "k",
      lanes: {
        a: [
          [10.5, 1],
          [30.5, 0],
        ],
        b: [
          [14.5, 1],
          [31.5, 0],
        ],
      },
    },
  ]);
  expect(tab.workbench.getState().openTakeId).toBe(takes()[0]!.id);
  expect(pad()).toMatchObject({ session: undefined, isRecording: false });
});

test("a key held through pulls at a number stays held, and the recording is one take", () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5]);
  for (let frames = 11; frames < 31; frames++) {
    lengthen(frames);
    wait(1);
  }
  expect(pad().codesDown).toEqual(["key:KeyA"]);
  play(["up", "key:KeyA", 40]);
  wait(2);
  tab.page()!.leave();
  expect(takes().length).toBe(1);
  expect(takes()[0]!.lanes.a![0]![0]).toBe(5.5);
  expect(takes()[0]!.lanes.a!.length).toBe(2);
});

test("an edit while trying out throws nothing back: frames, held keys and what was played go on", () => {
  tab.pad.wake();
  play(["down", "key:KeyA", 10]);
  wait(5);
  const { frame } = pad();
  for (const frames of [12, 40, 10]) {
    lengthen(frames);
    expect(pad().frame).toBe(frame);
    expect(pad().session!.state.down[0]).toBe(1);
  }
  tab.workbench.undo();
  expect(pad().session!.rules.kit.patterns[0]).toMatchObject({ for: "40f" });
  wait(5);
  tab.workbench.redo();
  wait(5);
  expect(pad().frame).toBe(frame + 10);
  tab.page()!.report({ code: "key:KeyA", value: 0, isRepeat: false }, tab.timers.nowMs());
  wait(2);
  tab.pad.keep();
  const lane = takes()[0]!.lanes.a!;
  expect(lane.map(([, value]) => value)).toEqual([1, 0]);
});

test("going back while recording keeps each try as a take; one without input after the place is not kept twice", async () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 10]);
  wait(2);
  tab.pad.markPlace();
  const { frame } = pad().place!;
  play(["down", "key:KeyB", 5], ["up", "key:KeyB", 9]);
  wait(40);
  tab.pad.goBack("mark");
  expect(takes().map(({ name }) => name)).toEqual(["Take 1"]);
  expect(pad()).toMatchObject({ frame, isRecording: true });
  wait(20);
  tab.pad.goBack("mark");
  expect(takes().length).toBe(1);
  // A crash would leave the whole second try, with what both share.
  play(["down", "key:KeyB", 20], ["up", "key:KeyB", 31]);
  wait(40);
  const left = async () =>
    joinRecordings("k", await tab.library.listChunks("k"), n => `Left ${n}`)
      .filter(({ isWhole }) => !isWhole)
      .map(({ take }) => take.lanes);
  await expect.poll(left).toEqual([{ a: takes()[0]!.lanes.a, b: [expect.anything(), expect.anything()] }]);
  tab.page()!.leave();
  expect(takes().map(({ name }) => name)).toEqual(["Take 1", "Take 2"]);
  const [one, two] = takes();
  expect(two!.lanes.a).toEqual(one!.lanes.a);
  const onsets = [one!, two!].map(({ lanes }) => lanes.b![0]![0] - frame);
  expect(onsets[0]).toBeCloseTo(5.5, 1);
  expect(onsets[1]).toBeGreaterThan(19);
  expect(two!.lanes.b!.length).toBe(2);
  await expect.poll(async () => (await tab.library.listChunks("k")).length).toBe(0);
});

test("a recording under way when the kit is left stays with its own kit", async () => {
  await tab.shelf.add(documentOf({ ...KIT, id: "other", name: "Other" }), "new");
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 20]);
  await tab.workbench.open("other");
  expect(tab.workbench.getState()).toMatchObject({ kit: { id: "other" }, takes: [] });
  expect(pad()).toMatchObject({ session: undefined, log: [], pairsSeen: new Set() });
  await tab.workbench.open("k");
  expect(takes()).toMatchObject([
    {
      kit: "k",
      lanes: {
        a: [
          [5.5, 1],
          [20.5, 0],
        ],
      },
    },
  ]);
});

test("a page killed in mid-recording loses at most its last second; the next one offers the rest", async () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 50], ["down", "key:KeyB", 80]);
  wait(60);
  const next = openTab(tab.browser);
  await until(() => tab.pad.getState().frame > 130);
  await expect.poll(async () => (await next.library.listChunks("k")).length).toBeGreaterThan(2);
  tab.kill();
  await next.workbench.open("k");
  await until(() => next.workbench.getState().holder === "ours");
  await until(() => next.notices.store.getState().some(notice => notice.title.includes("was cut off")));
  next.notices.store
    .getState()
    .find(notice => notice.title.includes("was cut off"))!
    .action!.run();
  const [kept] = next.workbench.getState().takes;
  expect(kept).toMatchObject({
    name: "Cut off, take 1",
    lanes: {
      a: [
        [5.5, 1],
        [50.5, 0],
      ],
      b: [[80.5, 1]],
    },
  });
  expect(kept!.frames).toBeGreaterThan(140 - 60);
  await expect.poll(async () => (await next.library.listChunks("k")).length).toBe(0);
});

test("a kept recording leaves no chunks, and can be undone and redone", async () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 50]);
  wait(40);
  tab.page()!.leave();
  await expect.poll(async () => (await tab.library.listChunks("k")).length).toBe(0);
  tab.workbench.undo();
  expect([takes().length, tab.workbench.getState().openTakeId]).toEqual([0, undefined]);
  tab.workbench.redo();
  expect(takes().length).toBe(1);
  await tab.workbench.flush();
  const kept = await openTab(tab.browser).library.readKit("k");
  expect(kept && !isBroken(kept) && kept.document.takes.length).toBe(1);
});

test("undo during a recording reaches the edits made since it began and no further; kept, the take is one step", async () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5]);
  tab.page()!.leave();
  lengthen(20);
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 20]);
  lengthen(30);
  tab.workbench.undo();
  tab.workbench.undo();
  tab.workbench.undo();
  expect(tab.workbench.getState().kit!.patterns[0]).toMatchObject({ for: "20f" });
  expect(takes().map(({ name }) => name)).toEqual(["Take 1"]);
  expect(tab.notices.store.getState().at(-1)!.title).toBe("Nothing was edited since the recording began.");
  tab.page()!.leave();
  expect(takes().map(({ name }) => name)).toEqual(["Take 1", "Take 2"]);
  tab.workbench.undo();
  expect(takes().map(({ name }) => name)).toEqual(["Take 1"]);
  tab.workbench.redo();
  expect(takes().map(({ name }) => name)).toEqual(["Take 1", "Take 2"]);
  tab.workbench.undo();
  tab.workbench.undo();
  tab.workbench.undo();
  expect(takes()).toEqual([]);
  tab.pad.wake(true);
  wait(5);
  tab.page()!.leave();
  // The names of undone takes are not used again.
  expect(takes().map(({ name }) => name)).toEqual(["Take 3"]);
});

/** Records a press and ends the recording when `meanwhile` has resolved. */
async function recordWhile(meanwhile: () => Promise<void>): Promise<void> {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["up", "key:KeyA", 20]);
  wait(40);
  await meanwhile();
  wait(10);
  tab.page()!.leave();
}
const storedTakes = async () => {
  const kept = await openTab(tab.browser).library.readKit("k");
  return kept && !isBroken(kept) ? kept.document.takes : [];
};

test("a recording that ends while another tab holds the pen is kept by that tab, complete, and leaves no chunks", async () => {
  const other = openTab(tab.browser);
  await recordWhile(async () => {
    await other.workbench.open("k");
    other.workbench.takePen();
    await until(() => other.workbench.getState().holder === "ours");
  });
  await until(() => other.workbench.getState().takes.length === 1);
  await expect.poll(async () => (await storedTakes()).length).toBe(1);
  expect((await storedTakes())[0]).toMatchObject({
    name: "Take 1",
    lanes: {
      a: [
        [5.5, 1],
        [20.5, 0],
      ],
    },
  });
  await expect.poll(async () => (await tab.library.listChunks("k")).length).toBe(0);
  // The active recording was never offered as an interrupted one.
  expect(other.notices.store.getState().filter(({ title }) => title.includes("cut off"))).toEqual([]);
  await until(() => takes().length === 1);
});

test("a recording that ends after its kit was deleted is held, and is a take when the kit is put back", async () => {
  const other = openTab(tab.browser);
  await recordWhile(async () => {
    await other.shelf.takeOff("k");
    await until(() => tab.workbench.getState().holder === "gone");
  });
  expect(takes()).toEqual([]);
  expect(tab.workbench.hasWaitingRecording()).toBe(true);
  const notice = () =>
    tab.notices.store.getState().find(({ title }) => title.startsWith("Take 1 was recorded"));
  await until(() => notice() !== undefined);
  notice()!.action!.run();
  await until(() => takes().length === 1);
  expect(takes()[0]).toMatchObject({
    name: "Take 1",
    lanes: {
      a: [
        [5.5, 1],
        [20.5, 0],
      ],
    },
  });
  await expect.poll(async () => (await storedTakes()).length).toBe(1);
  expect(tab.workbench.hasWaitingRecording()).toBe(false);
});

test("a recording the other tab does not keep becomes a take as soon as this tab gets the pen", async () => {
  const other = openTab({ ...tab.browser, channel: new EventTarget() });
  await recordWhile(async () => {
    await other.workbench.open("k");
    other.workbench.takePen();
    other.timers.pass(1500);
    await until(() => tab.workbench.getState().holder === "theirs");
  });
  expect(takes()).toEqual([]);
  other.kill();
  await until(() => takes().length === 1);
  await expect.poll(async () => (await storedTakes()).length).toBe(1);
});

test("an edit that follows another at once is written, though another kit is opened in that very task", async () => {
  await tab.shelf.add(documentOf({ ...KIT, id: "other", name: "Other" }), "new");
  const opening = tab.workbench.open("other");
  const stop = tab.workbench.onLeave(() => {
    lengthen(21);
    lengthen(22);
    lengthen(23);
  });
  await opening;
  stop();
  await tab.workbench.open("k");
  expect(tab.workbench.getState().kit!.patterns[0]).toMatchObject({ for: "23f" });
});

test("input while the clock is stopped lands on the next stepped frame", () => {
  tab.pad.wake();
  wait(20);
  tab.pad.freeze();
  const at = pad().frame;
  tab.turn(500);
  tab.page()!.report({ code: "key:KeyA", value: 1, isRepeat: false }, tab.timers.nowMs());
  tab.turn(500);
  expect(pad().frame).toBe(at);
  tab.pad.step();
  expect(pad()).toMatchObject({ frame: at + 1, codesDown: ["key:KeyA"] });
  const { session } = pad();
  expect(session!.state.down[0]).toBe(1);
  tab.pad.step();
  tab.pad.freeze();
  wait(2);
  expect(session!.state.down[0]).toBe(1);
});

test("held controls are released when the window loses the keyboard, a pad is unplugged or the page is hidden", () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5], ["down", "key:KeyB", 6]);
  wait(2);
  tab.page()!.letAllGo(tab.timers.nowMs());
  wait(2);
  expect(pad().codesDown).toEqual([]);
  tab.page()!.hide(true, tab.timers.nowMs());
  const at = pad().frame;
  tab.turn(2000);
  tab.page()!.hide(false, tab.timers.nowMs());
  wait(3);
  expect(pad().frame - at).toBeLessThan(8);
  tab.page()!.leave();
  expect(takes()[0]!.lanes.a!.map(([, value]) => value)).toEqual([1, 0]);
});

test("repeats of a held key are counted and have no effect; an unbound code is reported", () => {
  tab.pad.wake();
  play(["down", "key:KeyA", 3]);
  for (let n = 0; n < 5; n++)
    tab.page()!.report({ code: "key:KeyA", value: 1, isRepeat: true }, tab.timers.nowMs());
  play(["down", "key:KeyQ", 1]);
  wait(2);
  expect(pad().repeatsDropped).toBe(5);
  expect(
    pad()
      .log.slice(0, 2)
      .map(({ code, dropped }) => [code, dropped]),
  ).toEqual([
    ["key:KeyQ", "not bound"],
    ["key:KeyA", "repeat"],
  ]);
});

test("a press of a control that no rule uses is reported as such, and one that cancels a rule is not", () => {
  const reportOfB = () => {
    tab.pad.wake();
    play(["down", "key:KeyB", 3]);
    wait(2);
    tab.page()!.leave();
    return pad().log.find(({ value }) => value > 0)?.dropped;
  };
  expect(reportOfB()).toBe("unused");
  tab.workbench.editKit("cancel", kit => ({
    ...kit,
    patterns: [{ ...kit.patterns[0]!, cancel: ["b"] } as Kit["patterns"][number]],
  }));
  expect(reportOfB()).toBe("");
});

test("a try can be kept as a take repeatedly, each with a unique name", () => {
  tab.pad.wake();
  play(["down", "key:KeyA", 3]);
  wait(3);
  tab.pad.keep();
  wait(3);
  tab.pad.keep();
  expect(takes().map(({ name }: Take) => name)).toEqual(["Take 1", "Take 2"]);
  expect(new Set(takes().map(({ id }) => id)).size).toBe(2);
});

test("a tab that may not write cannot record and is refused in advance; trying is always possible", async () => {
  const second = openTab(tab.browser);
  await second.workbench.open("k");
  second.pad.wake(true);
  expect(second.pad.getState().session).toBeUndefined();
  expect(second.notices.store.getState().map(({ title }) => title)).toEqual([
    "K is being worked on in another tab.",
  ]);
  second.pad.wake();
  expect(second.pad.getState().session).toBeDefined();
});

test("a gate held by hand is a lane of what is kept", () => {
  tab.pad.wake();
  wait(5);
  tab.pad.turnGate("g");
  wait(5);
  tab.pad.turnGate("g");
  wait(5);
  tab.pad.keep();
  expect(takes()[0]!.gates?.g?.map(([, value]) => value)).toEqual([1, 0]);
});

test("keys of the bench freeze, step and slow the game while a key is held, which stays held", () => {
  tab.pad.wake(true);
  play(["down", "key:KeyA", 5]);
  tab.page()!.bench("freeze");
  const stood = pad().frame;
  wait(30);
  expect(pad()).toMatchObject({ frame: stood, isFrozen: true, codesDown: ["key:KeyA"] });
  tab.page()!.report({ code: "key:KeyB", value: 1, isRepeat: false }, tab.timers.nowMs());
  tab.page()!.bench("step");
  expect(pad().frame).toBe(stood + 1);
  expect([...pad().session!.state.down]).toEqual([1, 1]);
  tab.page()!.bench("slower");
  expect(pad().speedPercent).toBe(75);
  tab.page()!.bench("faster");
  tab.page()!.bench("freeze");
  wait(20);
  expect(pad()).toMatchObject({ isFrozen: false, speedPercent: 100, codesDown: ["key:KeyA", "key:KeyB"] });
  tab.page()!.leave();
  expect(takes()[0]!.lanes).toMatchObject({
    a: [
      [5.5, 1],
      [expect.any(Number), 0],
    ],
    b: [
      [stood + 1, 1],
      [expect.any(Number), 0],
    ],
  });
});

test("a step from a running game stops it first; speeds end at the slowest and the fastest", () => {
  tab.pad.wake();
  wait(4);
  tab.page()!.bench("step");
  expect(pad().isFrozen).toBe(true);
  for (let k = 0; k < 20; k++) tab.page()!.bench("slower");
  expect(pad().speedPercent).toBe(Math.min(...SPEEDS));
  for (let k = 0; k < 20; k++) tab.page()!.bench("faster");
  expect(pad().speedPercent).toBe(Math.max(...SPEEDS));
});

test("a recording names its device and the player of the last take that has one", () => {
  const by: Take = {
    format: "moss-tap/take",
    version: 1,
    id: "by",
    name: "By Wren",
    rate: 60,
    frames: 3,
    lanes: {},
    player: "Wren",
  };
  tab.workbench.addTake(by);
  tab.pad.wake(true);
  play(["down", "key:KeyA", 3], ["up", "key:KeyA", 6]);
  wait(3);
  tab.page()!.leave();
  expect(takes().at(-1)).toMatchObject({ player: "Wren", device: "keys" });
});

test("a stall of twelve seconds leaves a gap in the take, and every frame of the last ten is played", () => {
  tab.pad.wake(true);
  wait(10);
  const at = pad().frame;
  tab.turn(12_000);
  expect(pad().missedMs).toBeGreaterThan(1900);
  wait(60);
  tab.page()!.leave();
  const take = takes().at(-1)!;
  expect(take.gaps).toEqual([[at + 1, pad().missedMs]]);
  expect(take.frames).toBeGreaterThan(at + 595);
});

test("what was played can be kept for a minute after listening ended, once, and is gone when it begins again", () => {
  tab.pad.wake();
  play(["down", "key:KeyA", 10], ["up", "key:KeyA", 14]);
  wait(5);
  tab.page()!.leave();
  expect(pad().ended).toBeDefined();
  tab.pad.keep();
  expect(takes()).toMatchObject([
    {
      lanes: {
        a: [
          [10.5, 1],
          [14.5, 0],
        ],
      },
    },
  ]);
  expect(pad().ended).toBeUndefined();
  tab.pad.keep();
  expect(takes()).toHaveLength(1);
  tab.pad.wake();
  play(["down", "key:KeyA", 3]);
  tab.page()!.leave();
  tab.pad.wake();
  expect(pad().ended).toBeUndefined();
  play(["down", "key:KeyA", 3]);
  tab.page()!.leave();
  tab.timers.pass(60_000);
  expect(pad().ended).toBeUndefined();
});

test("a session without a press, and a recording, leave nothing to keep", () => {
  tab.pad.wake();
  wait(5);
  tab.page()!.leave();
  expect(pad().ended).toBeUndefined();
  tab.pad.wake(true);
  play(["down", "key:KeyA", 3]);
  tab.page()!.leave();
  expect(pad().ended).toBeUndefined();
});
