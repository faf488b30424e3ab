import { createFrameInput, createTrace, parseFrames, type Take, groupLanes } from "#core";
import type { StageProgram, StageState } from "./kinds";
import { createChance } from "./ropes/ropes";
import type { Rules } from "./rules";
import { createStaging, stepStaging } from "./staging";

/**
 * Decides the controls of a scripted player for the next frame, from the state after the previous one. `restart`: returns
 * whether it has just planned a press on an earlier frame; the play then begins again, with that press.
 */
export type Routine = Decide & { readonly restart?: () => boolean };

type Decide = (
  frame: number,
  see: {
    readonly bodies: StageState | undefined;
    readonly stage: StageProgram | undefined;
    readonly rateHz: number;
    /** Returns whether a gate was open on the previous frame, by its id; false for an unknown gate. */
    readonly isOpen: (gate: string) => boolean;
  },
) => ReadonlySet<string>;

/**
 * One line of a scripted player: "hold Leap for 9f, 3f after Footing closes, each time". Lengths as in a kit. The time
 * after a gate closes counts from the last frame on which it was open, as a coyote does; after it opens, from the first.
 */
export interface HandLine {
  readonly control: string;
  readonly for: string;
  readonly after: string;
  /** The gate whose change triggers the line; absent means the start of the take. */
  readonly gate?: string | undefined;
  readonly turns: "open" | "closed";
  /** Whether it applies every time the gate changes, or only the first time. */
  readonly isEachTime: boolean;
}

/**
 * Creates a scripted player from lines, with random deviations of at most so many frames in onset and length,
 * drawn from a seed.
 */
export function handOf(
  lines: readonly HandLine[],
  rateHz: number,
  seed: number,
  unevenFrames: number,
): Routine {
  const chance = createChance(seed);
  const off = () => Math.round((chance() * 2 - 1) * unevenFrames);
  const frames = (written: string) => parseFrames(written, rateHz, "atLeast") ?? 0;
  const was = new Map<string, boolean>();
  /** By line: the number of its events met since the play began. */
  const met = new Map<HandLine, number>();
  /** The planned presses, by line and event; they last when the play begins again. */
  const presses = new Map<string, { readonly control: string; readonly from: number; readonly to: number }>();
  let isLate = false;

  function plan(line: HandLine, frame: number): void {
    const event = met.get(line) ?? 0;
    met.set(line, event + 1);
    const key = `${lines.indexOf(line)} ${event}`;
    if (presses.has(key) || (event > 0 && !line.isEachTime)) return;
    // The change is seen on the frame after it: the gate was last open two frames ago, or has opened on the last one.
    const since = line.gate === undefined ? frame : line.turns === "closed" ? frame - 2 : frame - 1;
    const from = Math.max(0, since + frames(line.after) + off());
    presses.set(key, { control: line.control, from, to: from + Math.max(1, frames(line.for) + off()) });
    if (from < frame) isLate = true;
  }

  const decide: Decide = (frame, { isOpen }) => {
    for (const line of lines) {
      const isNow = line.gate === undefined || isOpen(line.gate) === (line.turns === "open");
      const key = `${line.gate} ${line.turns}`;
      if (line.gate === undefined ? frame === 0 : frame > 0 && isNow && was.get(key) === false)
        plan(line, frame);
    }
    for (const { gate, turns } of lines)
      if (gate !== undefined) was.set(`${gate} ${turns}`, isOpen(gate) === (turns === "open"));
    return new Set(
      [...presses.values()].flatMap(({ control, from, to }) =>
        frame >= from && frame < to ? [control] : [],
      ),
    );
  };
  return Object.assign(decide, {
    restart() {
      if (!isLate) return false;
      isLate = false;
      was.clear();
      met.clear();
      return true;
    },
  });
}

/** Plays a kit on its stage with a scripted player and returns its input as a take. Deterministic. */
export function playRoutine(rules: Rules, routine: Routine, frames: number, id: string, name: string): Take {
  const { kit } = rules;
  let lanes = playOnce(rules, routine, frames);
  while (!lanes) lanes = playOnce(rules, routine, frames);
  return { format: "moss-tap/take", version: 1, id, name, kit: kit.id, rate: kit.rate, frames, lanes };
}

/** Plays from the beginning; undefined if the routine must begin again. */
function playOnce(rules: Rules, routine: Routine, frames: number): Take["lanes"] | undefined {
  const { program, stage } = rules;
  const staging = createStaging(rules);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const changes: [string, number, number][] = [];
  const places = new Map(program.gates.map((gate, g) => [gate.id, g]));
  const isOpen = (gate: string) => staging.state.gateOpen[places.get(gate) ?? -1] === 1;
  let held: ReadonlySet<string> = new Set();
  for (let frame = 0; frame < frames; frame++) {
    const wanted = routine(frame, { bodies: staging.bodies, stage, rateHz: program.rateHz, isOpen });
    if (routine.restart?.()) return undefined;
    input.changeCount = 0;
    program.controls.forEach((control, c) => {
      if (wanted.has(control.id) === held.has(control.id)) return;
      const isDown = wanted.has(control.id);
      input.changes[input.changeCount++] = c * 2 + (isDown ? 1 : 0);
      changes.push([control.id, frame, isDown ? 1 : 0]);
    });
    held = new Set(wanted);
    stepStaging(rules, staging, input, trace);
  }
  return groupLanes(changes);
}
