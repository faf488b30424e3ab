import { arrowOf, type Program } from "#core";
import { addSpan, closeSpan, type TapeRow } from "./tapeRows";

/** Follows a stick's four controls and its mirroring, and writes its direction digit into a row. */
export interface StickFollower {
  readonly row: TapeRow;
  readonly turnControl: (control: number, frame: number, isDown: boolean) => void;
  readonly turnGate: (gate: number, frame: number, isOpen: boolean) => void;
  /** Writes the digit in force; everything up to this frame must have been read. */
  readonly writeUpTo: (frame: number) => void;
}

const CENTRE = 5;

/**
 * Creates the follower of one stick. Its row has a stretch for every direction except the centre, labelled
 * with the digit.
 */
export function followStick(stick: Program["sticks"][number], row: TapeRow): StickFollower {
  const down = new Map([stick.up, stick.down, stick.left, stick.right].map(control => [control, 0]));
  let mirror = 0;
  let changed = -1;
  let digit = CENTRE;

  function write(): void {
    if (changed < 0) return;
    const side = (down.get(stick.right)! - down.get(stick.left)!) * (mirror ? -1 : 1);
    const now = CENTRE + side + (down.get(stick.up)! - down.get(stick.down)!) * 3;
    if (now !== digit) {
      closeSpan(row, changed);
      if (now !== CENTRE) addSpan(row, changed, Infinity, "facing", `${now} ${arrowOf(now)}`);
      digit = now;
    }
    changed = -1;
  }

  function touch(frame: number): void {
    if (changed >= 0 && changed !== frame) write();
    changed = frame;
  }

  return {
    row,
    turnControl(control, frame, isDown) {
      if (!down.has(control)) return;
      touch(frame);
      down.set(control, isDown ? 1 : 0);
    },
    turnGate(gate, frame, isOpen) {
      if (gate !== stick.mirrorGate) return;
      touch(frame);
      mirror = isOpen ? 1 : 0;
    },
    writeUpTo(frame) {
      if (changed >= 0 && changed < frame) write();
    },
  };
}
