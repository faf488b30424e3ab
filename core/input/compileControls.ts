import { fault } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { ControlProgram, StickProgram } from "../program/program";

const PRESS_AT = 0.5;
const RELEASE_AT = 0.4;

/**
 * Compiles controls with their thresholds. If only `pressAt` is written and lies below the default release
 * threshold, the release threshold is lowered to it: it never exceeds the press threshold.
 */
export function compileControlList(names: Names): ControlProgram[] {
  return names.kit.controls.map((control, c) => {
    const pressAt = control.pressAt ?? PRESS_AT;
    const releaseAt = control.releaseAt ?? Math.min(RELEASE_AT, pressAt);
    if (releaseAt > pressAt) {
      names.issues.push(
        fault("release-above-press", ["controls", c, "releaseAt"], { release: releaseAt, press: pressAt }),
      );
    }
    return { id: control.id, pressAt, releaseAt, isToggle: control.toggle ?? false };
  });
}

/** Compiles sticks. Each of the four controls must exist and serve one direction only. */
export function compileSticks(names: Names): StickProgram[] {
  return (names.kit.sticks ?? []).map((stick, s) => {
    const sides = ["up", "down", "left", "right"] as const;
    sides.forEach((side, k) => {
      if (sides.slice(0, k).some(other => stick[other] === stick[side])) {
        names.issues.push(fault("stick-same", ["sticks", s, side], { id: stick[side] }));
      }
    });
    const [up, down, left, right] = sides.map(side => names.control(stick[side], ["sticks", s, side])) as [
      number,
      number,
      number,
      number,
    ];
    const mirrorGate =
      stick.mirrorWhen === undefined ? -1 : names.gate(stick.mirrorWhen, ["sticks", s, "mirrorWhen"]);
    return { id: stick.id, up, down, left, right, opposites: stick.opposites ?? "neutral", mirrorGate };
  });
}
