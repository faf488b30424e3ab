import type { Stick } from "../../kit/schema";

/** A direction and its start: the frame of its edge (undefined if hiding made it) and its judged digit. */
interface Direction {
  readonly raw: number;
  readonly began: number | undefined;
  readonly digit: number;
}

type States = Readonly<Record<string, boolean>>;

/** The controls and sticks as one pattern sees them on its current frame. */
export class View {
  f = -1;
  private now: States = {};
  private was: States = {};
  private readonly pressed = new Map<string, number>();
  private readonly directions = new Map<string, Direction>();
  private readonly turned = new Map<string, Direction>();

  constructor(
    private readonly sticks: readonly Stick[],
    /** The pattern's clock: the time of each frame, in hundredths. */
    private readonly time: readonly number[],
    private readonly isMirrored: (stick: Stick, f: number) => boolean,
  ) {}

  /** Advances to a frame with the given control states, before and now. */
  goTo(f: number, was: States, now: States): void {
    for (const [id, direction] of this.turned) this.directions.set(id, direction);
    this.turned.clear();
    Object.assign(this, { f, was, now });
    for (const control of Object.keys(now)) if (this.isPressed(control)) this.pressed.set(control, f);
    for (const stick of this.sticks) this.turn(stick);
  }

  private turn(stick: Stick): void {
    const before = digitOf(stick, this.was);
    const after = digitOf(stick, this.now);
    const last = this.directions.get(stick.id) ?? { raw: 5, began: undefined, digit: 5 };
    // Hiding makes no edge: a direction it produced has no start.
    if (last.raw !== before) this.directions.set(stick.id, { raw: before, began: undefined, digit: before });
    if (after === before) return;
    const digit = this.isMirrored(stick, this.f) ? [0, 3, 2, 1, 6, 5, 4, 9, 8, 7][after]! : after;
    this.turned.set(stick.id, { raw: after, began: this.f, digit });
  }

  isDown = (control: string) => this.now[control] === true;
  wasDown = (control: string) => this.was[control] === true;
  isPressed = (control: string) => this.isDown(control) && !this.wasDown(control);
  isReleased = (control: string) => !this.isDown(control) && this.wasDown(control);
  isAnyPressed = (controls: readonly string[] = []) => controls.some(this.isPressed);
  /** Returns the frame of the current or last press of a control. */
  pressOf = (control: string) => this.pressed.get(control)!;
  /** Returns the current age of an event on a frame. */
  age = (frame: number) => this.time[this.f]! - this.time[frame]!;
  /** Returns the direction edge of a stick on this frame. */
  edgeOf = (stick: string) => this.turned.get(stick);
  /** Returns the direction of a stick on the previous frame. */
  before = (stick: string) => this.directions.get(stick);
}

function digitOf(stick: Stick, states: States): number {
  const x = Number(states[stick.right] === true) - Number(states[stick.left] === true);
  const y = Number(states[stick.up] === true) - Number(states[stick.down] === true);
  return 5 + x + 3 * y;
}
