import { beforeEach, expect, test } from "vitest";
import { readKitAndTake } from "../tests/evaluated";
import { openKit, openTab, type TestTab } from "../tests/testWorld";

const { kit, take } = readKitAndTake("demo/belfry-runner", "1-clean-climb");
const RECORDED = { ...take, id: "recorded", name: "Take 9", kit: kit.id };

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, kit);
  const other = openTab({ ...tab.browser, channel: new EventTarget() });
  await other.workbench.open(kit.id);
  other.workbench.takePen();
  other.timers.pass(1500);
  await expect.poll(() => tab.workbench.getState().holder).toBe("theirs");
});

const keep = (isStored: boolean) =>
  tab.workbench.keepRecording({
    take: RECORDED,
    what: "recorded Take 9",
    finish: () => Promise.resolve(isStored),
    end: () => undefined,
  });
const notice = () => tab.notices.store.getState().find(({ title }) => title.startsWith("Take 9"))!;

test("a recording whose chunks are stored is reported as kept by the tab with the pen", async () => {
  await keep(true);
  expect(notice().title).toBe("Take 9 is kept by the tab that works on Belfry Runner.");
});

test("a recording that the storage refused is never reported as kept, and can be saved as a file", async () => {
  await keep(false);
  expect(notice().title).toContain("this page alone has it");
  expect(notice().other!.label).toBe("Save it as a file");
  expect(tab.workbench.hasWaitingRecording()).toBe(true);
});

test("a complete recording is kept by the tab with the pen while its own tab still marks it as in use", async () => {
  const keeper = openTab(tab.browser);
  await keeper.workbench.open(kit.id);
  keeper.workbench.takePen();
  keeper.timers.pass(1500);
  await expect.poll(() => keeper.workbench.getState().holder).toBe("ours");
  tab.tabs.markAlive("recorded");
  const piece = {
    rate: 60,
    frames: 60,
    lanes: [["leap", [[3, 1]]]],
    gates: [],
    speed: [],
    gaps: [],
    did: [],
  } as const;
  const key = { kitId: kit.id, id: "recorded", place: 0 };
  await tab.library.addChunk({ ...key, ...piece, whole: { name: "Take 9" } });
  tab.tabs.broadcast({ kind: "recorded", kitId: kit.id });
  await expect.poll(() => keeper.workbench.getState().takes.map(({ name }) => name)).toEqual(["Take 9"]);
});
