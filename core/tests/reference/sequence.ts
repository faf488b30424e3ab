import type { PatternOf, Step, Stick } from "../../kit/schema";
import type { Edge, Event, Lengths, Watcher } from "./patterns";
import type { View } from "./view";

/** Frames of the first steps with their edges: `serves` identifies edges, `edges` is reported by a fire. */
interface Choice {
  readonly frames: readonly number[];
  readonly serves: readonly string[];
  readonly edges: readonly Edge[];
}

interface Found {
  readonly serves: readonly string[];
  readonly edges: readonly Edge[];
}

function parseDirection(written: string): readonly [stick: string, digit: number] {
  const colon = written.lastIndexOf(":");
  return [written.slice(0, colon), Number(written.slice(colon + 1))];
}

/** Returns the controls a step uses. */
export function controlsOfStep(step: Step, sticks: readonly Stick[]): readonly string[] {
  if ("press" in step) return [step.press];
  if ("release" in step) return [step.release];
  if ("hold" in step) return [step.hold];
  if ("together" in step) return step.together;
  const stick = sticks.find(item => item.id === parseDirection(step.dir)[0])!;
  return [stick.up, stick.down, stick.left, stick.right];
}

/** Watches a sequence as defined: every choice of frames for its steps is kept, without pruning. */
export function watchSequence(
  pattern: PatternOf<"sequence">,
  lengths: Lengths,
  controls: readonly string[],
  sticks: readonly Stick[],
): Watcher {
  const { steps, cancel = [] } = pattern;
  const total = lengths.atMost(pattern.total);
  const gapOf = (k: number) => lengths.atMost(steps[k]!.gap ?? pattern.gap);
  const afterOf = (k: number) => lengths.atLeast(steps[k]!.after);
  const own = new Set(steps.flatMap(step => controlsOfStep(step, sticks)));
  const ofSticks = new Set(sticks.flatMap(stick => [stick.up, stick.down, stick.left, stick.right]));
  const breakers =
    pattern.others === "break"
      ? controls.filter(id => !own.has(id) && !ofSticks.has(id) && !cancel.includes(id))
      : [];
  let choices: Choice[] = [];
  /** Edges at or before this frame no longer count. */
  let usedUp = -1;
  let best = 0;
  let hot: ((view: View) => boolean) | undefined;

  const press = (view: View, control: string): Found => ({
    serves: [`press ${control} ${view.pressOf(control)}`],
    edges: [[control, view.pressOf(control)]],
  });

  function find(view: View, step: Step): Found | undefined {
    if ("press" in step) return view.isPressed(step.press) ? press(view, step.press) : undefined;
    if ("release" in step) {
      if (!view.isReleased(step.release)) return undefined;
      const { edges } = press(view, step.release);
      return { serves: [`release ${step.release} ${view.f}`], edges };
    }
    if ("hold" in step) {
      if (!view.wasDown(step.hold) || view.pressOf(step.hold) <= usedUp) return undefined;
      return view.age(view.pressOf(step.hold)) >= lengths.atLeast(step.for)
        ? press(view, step.hold)
        : undefined;
    }
    if ("together" in step) {
      const all = step.together;
      if (!all.every(view.isDown) || !view.isAnyPressed(all)) return undefined;
      const presses = all.map(view.pressOf);
      const ages = presses.map(view.age);
      if (Math.max(...ages) - Math.min(...ages) > lengths.atMost(step.within)) return undefined;
      if (presses.some(p => p <= usedUp)) return undefined;
      const found = all.map(control => press(view, control));
      return { serves: found.flatMap(item => item.serves), edges: found.flatMap(item => item.edges) };
    }
    const [stick, digit] = parseDirection(step.dir);
    if (step.for === undefined) {
      if (view.edgeOf(stick)?.digit !== digit) return undefined;
      return { serves: [`dir ${stick} ${view.f}`], edges: [[stick, view.f]] };
    }
    const direction = view.before(stick);
    if (direction?.began === undefined || direction.digit !== digit || direction.began <= usedUp)
      return undefined;
    if (view.age(direction.began) < lengths.atLeast(step.for)) return undefined;
    return { serves: [`dir ${stick} ${direction.began}`], edges: [[stick, direction.began]] };
  }

  /** Returns whether a fire is sustained: the input of its last step is still down, unchanged. */
  function heatOf(step: Step): ((view: View) => boolean) | undefined {
    if ("press" in step) return view => view.isDown(step.press);
    if ("hold" in step) return view => view.isDown(step.hold);
    if ("together" in step) return view => step.together.every(view.isDown);
    if ("release" in step) return undefined;
    const [stick] = parseDirection(step.dir);
    let since: number | undefined;
    return view => {
      const direction = view.edgeOf(stick) ?? view.before(stick);
      since ??= step.for === undefined ? direction?.began : view.before(stick)?.began;
      return direction?.began === since;
    };
  }

  const isInTime = (view: View, { frames }: Choice) =>
    view.age(frames.at(-1)!) <= gapOf(frames.length) && view.age(frames[0]!) <= total;
  const stepsMade = (list: readonly Choice[]) => Math.max(0, ...list.map(choice => choice.frames.length));

  function extend(view: View): void {
    for (let k = 0; k < steps.length; k++) {
      const found = find(view, steps[k]!);
      if (!found) continue;
      const from: Choice[] =
        k === 0
          ? [{ frames: [], serves: [], edges: [] }]
          : choices.filter(
              choice =>
                choice.frames.length === k &&
                view.age(choice.frames.at(-1)!) >= afterOf(k) &&
                !found.serves.some(edge => choice.serves.includes(edge)),
            );
      for (const choice of from)
        choices.push({
          frames: [...choice.frames, view.f],
          serves: [...choice.serves, ...found.serves],
          edges: [...choice.edges, ...found.edges],
        });
    }
  }

  function latest(whole: readonly Choice[]): Choice {
    return whole.reduce((a, b) => {
      const k = a.frames.findIndex((frame, at) => frame !== b.frames[at]);
      return k >= 0 && b.frames[k]! > a.frames[k]! ? b : a;
    });
  }

  return {
    step(view): Event {
      if (hot && !hot(view)) hot = undefined;
      const hadAny = choices.length > 0;
      choices = choices.filter(choice => isInTime(view, choice));
      const wasInTime = choices.length > 0;
      const isBroken = view.isAnyPressed(breakers);
      if (isBroken) choices = [];
      else extend(view);
      const reached = Math.max(best, stepsMade(choices));
      const whole = choices.filter(choice => choice.frames.length === steps.length);
      if ((hadAny || choices.length > 0) && view.isAnyPressed(cancel)) {
        choices = [];
        usedUp = view.f;
        hot = undefined;
        return { lapses: { why: "cancelled", reached } };
      }
      if (whole.length > 0) {
        choices = [];
        usedUp = view.f;
        hot = heatOf(steps.at(-1)!);
        if (hot && !hot(view)) hot = undefined;
        return { fires: { edges: latest(whole).edges } };
      }
      if (hadAny && choices.length === 0) {
        hot = undefined;
        return { lapses: { why: isBroken && wasInTime ? "broken" : "too-slow", reached: best } };
      }
      return {};
    },
    close(isForming) {
      best = Math.max(isForming ? best : 0, stepsMade(choices));
    },
    isSustained: () => hot !== undefined,
    isForming: () => choices.length > 0,
    startOver() {
      choices = [];
      hot = undefined;
    },
    reached: () => best,
  };
}
