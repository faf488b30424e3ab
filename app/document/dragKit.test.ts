import type { PointerEvent } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { openKit, openTab, type TestTab } from "../tests/testWorld";
import { readKitAndTake } from "../tests/evaluated";
import { dragKit } from "./dragKit";
import { renameKit } from "../edits/kitEdits";

const target = Object.assign(new EventTarget(), { setPointerCapture: () => undefined, isConnected: true });

/**
 * Presses a pointer on the target; each move renames the kit to the given name, and an empty one changes
 * nothing.
 */
function press({ isAtOnce = false, pointerId = 1, isPrimary = true } = {}): void {
  const nativeEvent = Object.assign(new Event("pointerdown"), { detail: "at once" });
  const event = {
    currentTarget: target,
    pointerId,
    isPrimary,
    nativeEvent,
  } as unknown as PointerEvent<Element>;
  const edit = (moved: { detail: unknown }) => {
    const name = String(moved.detail);
    if (name !== "") rename(name);
  };
  dragKit(tab.workbench, event, moved => edit(moved as unknown as { detail: unknown }), isAtOnce);
}

/** Dispatches a pointer event on the window. */
const does = (type: string, pointerId = 1, detail = "") =>
  window.dispatchEvent(Object.assign(new Event(type), { pointerId, detail }));
const move = (name: string, pointerId = 1) => does("pointermove", pointerId, name);
const escape = () => window.dispatchEvent(Object.assign(new Event("keydown"), { key: "Escape" }));
const rename = (name: string) => tab.workbench.editKit(name, kit => renameKit(kit, name));
const name = () => tab.workbench.getState().kit?.name;
const steps = () => tab.workbench.history.getState().pastStates.length;

let tab: TestTab;
beforeEach(async () => {
  vi.stubGlobal("window", new EventTarget());
  tab = openTab();
  await openKit(tab, readKitAndTake("demo/belfry-runner", "1-clean-climb").kit);
});

afterEach(() => vi.unstubAllGlobals());

test("a drag is one step of undo, also when its first moves changed nothing", () => {
  press();
  move("");
  move("");
  move("One");
  move("Two");
  does("pointerup");
  expect([name(), steps()]).toEqual(["Two", 1]);
  move("after it was let go");
  expect(name()).toBe("Two");
  tab.workbench.undo();
  expect(name()).toBe("Belfry Runner");
});

test("Escape leaves nothing half-made and nothing to undo", () => {
  press();
  move("One");
  move("Two");
  escape();
  expect([name(), steps()]).toEqual(["Belfry Runner", 0]);
});

test.each([
  ["the system takes the pointer", () => does("pointercancel")],
  ["the capture is lost", () => does("lostpointercapture")],
  ["the window loses the focus", () => window.dispatchEvent(new Event("blur"))],
  ["another view comes", () => tab.workbench.closeStep()],
  ["another take is opened", () => tab.workbench.openTake("another")],
])("what a drag did is kept as one step when %s, and Escape means nothing to it any more", (_what, end) => {
  press();
  move("One");
  move("Two");
  end();
  expect([name(), steps()]).toEqual(["Two", 1]);
  move("Three");
  escape();
  expect([name(), steps()]).toEqual(["Two", 1]);
  tab.workbench.undo();
  expect(name()).toBe("Belfry Runner");
  tab.workbench.redo();
  expect(name()).toBe("Two");
});

test("an undo in the middle of a drag reverts and ends it; later edits and redo are not affected by Escape", () => {
  press();
  move("One");
  tab.workbench.undo();
  expect(name()).toBe("Belfry Runner");
  move("Two");
  expect(name()).toBe("Belfry Runner");
  rename("Edited");
  rename("Edited again");
  escape();
  expect([name(), steps()]).toEqual(["Edited again", 2]);
  tab.workbench.undo();
  tab.workbench.redo();
  expect(name()).toBe("Edited again");
});

test("another edit in the middle of a drag is a step of its own", () => {
  press();
  move("One");
  rename("From elsewhere");
  move("Two");
  escape();
  does("pointerup");
  expect([name(), steps()]).toEqual(["From elsewhere", 2]);
  tab.workbench.undo();
  expect(name()).toBe("One");
});

test("a second finger neither steers a drag nor begins one", () => {
  press();
  move("One");
  press({ pointerId: 2, isPrimary: false });
  move("Two", 2);
  does("pointerup", 2);
  expect(name()).toBe("One");
  move("Three");
  does("pointerup");
  expect([name(), steps()]).toEqual(["Three", 1]);
});

test("a removed handle reverts nothing on Escape", () => {
  press();
  move("One");
  target.isConnected = false;
  escape();
  target.isConnected = true;
  expect([name(), steps()]).toEqual(["One", 1]);
});

test("a brush edits where it is pressed; a drag without any change is no step", () => {
  press({ isAtOnce: true });
  does("pointerup");
  expect([name(), steps()]).toEqual(["at once", 1]);
  press();
  move("");
  does("pointerup");
  expect(steps()).toBe(1);
});
