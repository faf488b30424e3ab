import type { PointerEvent } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { openKit, openTab, type TestTab } from "../tests/testWorld";
import { readKitAndTake } from "../tests/evaluated";
import { dragKit } from "./dragKit";
import { renameKit } from "../edits/edits";

const target = Object.assign(new EventTarget(), { setPointerCapture: () => undefined });

/** A pointer pressed on the target, each of whose moves renames the kit to what it says; nothing is no change. */
function press(isAtOnce = false): void {
  const nativeEvent = Object.assign(new Event("pointerdown"), { detail: "at once" });
  const event = { currentTarget: target, pointerId: 1, nativeEvent } as unknown as PointerEvent<Element>;
  const edit = (moved: { detail: unknown }) => {
    const name = String(moved.detail);
    if (name !== "") tab.workbench.editKit(name, kit => renameKit(kit, name));
  };
  dragKit(tab.workbench, event, moved => edit(moved as unknown as { detail: unknown }), isAtOnce);
}

const move = (name: string) =>
  target.dispatchEvent(Object.assign(new Event("pointermove"), { detail: name }));
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
  target.dispatchEvent(new Event("pointerup"));
  expect([name(), steps()]).toEqual(["Two", 1]);
  move("after it was let go");
  expect(name()).toBe("Two");
  tab.workbench.undo();
  expect(name()).toBe("Belfry Runner");
});

test("Escape, or a pointer taken away, leaves nothing half-made and nothing to undo", () => {
  const breaks = [
    () => window.dispatchEvent(Object.assign(new Event("keydown"), { key: "Escape" })),
    () => target.dispatchEvent(new Event("pointercancel")),
  ];
  for (const breakOff of breaks) {
    press();
    move("One");
    move("Two");
    breakOff();
    expect([name(), steps()]).toEqual(["Belfry Runner", 0]);
  }
});

test("a brush edits where it is pressed; a drag without any change is no step", () => {
  press(true);
  target.dispatchEvent(new Event("pointerup"));
  expect([name(), steps()]).toEqual(["at once", 1]);
  press();
  move("");
  target.dispatchEvent(new Event("pointerup"));
  expect(steps()).toBe(1);
});
