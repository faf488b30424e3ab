import type { PointerEvent } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { parseKit } from "#core";
import belfry from "../../demo/belfry-runner/kit.json";
import { dragKit } from "./dragKit";
import { renameKit } from "../edits/edits";
import { closeKit, editKit, undo, workbench } from "./workbench";

const target = Object.assign(new EventTarget(), { setPointerCapture: () => undefined });

/** A pointer pressed on the target, each of whose moves renames the kit to what it says; nothing is no change. */
function press(isAtOnce = false): void {
  const nativeEvent = Object.assign(new Event("pointerdown"), { detail: "at once" });
  const event = { currentTarget: target, pointerId: 1, nativeEvent } as unknown as PointerEvent<Element>;
  const edit = (moved: { detail: unknown }) => {
    const name = String(moved.detail);
    if (name !== "") editKit(name, kit => renameKit(kit, name));
  };
  dragKit(event, moved => edit(moved as unknown as { detail: unknown }), isAtOnce);
}

const move = (name: string) =>
  target.dispatchEvent(Object.assign(new Event("pointermove"), { detail: name }));
const name = () => workbench.getState().kit?.name;
const steps = () => workbench.temporal.getState().pastStates.length;

beforeEach(() => {
  vi.stubGlobal("window", new EventTarget());
  closeKit();
  const kit = parseKit(belfry);
  if (kit.ok) workbench.setState({ kit: kit.value });
  workbench.temporal.getState().clear();
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
  undo();
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
