import { createActor, setup, assign } from "xstate";
import type { InputColumns } from "#core";

/** The counts of each implementation, to verify that they agree. */
export interface Counts {
  holds: number;
  doubles: number;
  hops: number;
  lost: number;
}

/** Calls back once per frame with the states of the control and the gate, like a game's update. */
function eachFrame(columns: InputColumns, update: (isDown: boolean, isOpen: boolean) => void): void {
  let c = 0;
  let g = 0;
  let isDown = false;
  let isOpen = false;
  for (let f = 0; f < columns.frames; f++) {
    while (columns.controlFrame[c] === f) isDown = (columns.controlChange[c++]! & 1) === 1;
    while (columns.gateFrame[g] === f) isOpen = (columns.gateChange[g++]! & 1) === 1;
    update(isDown, isOpen);
  }
}

/** The small job with hand-written timers and flags, updated on every frame. */
export function runByHand(columns: InputColumns): Counts {
  const counts: Counts = { holds: 0, doubles: 0, hops: 0, lost: 0 };
  let wasDown = false;
  let heldFor = 0;
  let hasFired = false;
  let sinceTap = 1e9;
  let buffer = -1;
  eachFrame(columns, (isDown, isOpen) => {
    const pressed = isDown && !wasDown;
    if (wasDown) {
      heldFor++;
      if (heldFor >= 18 && !hasFired) {
        counts.holds++;
        hasFired = true;
      }
    }
    sinceTap++;
    if (pressed) {
      heldFor = 0;
      hasFired = false;
      if (sinceTap <= 12) {
        counts.doubles++;
        sinceTap = 1e9;
      } else sinceTap = 0;
      if (buffer >= 0) counts.lost++;
      buffer = 0;
    } else if (buffer >= 0) buffer++;
    if (buffer >= 0) {
      if (isOpen) {
        counts.hops++;
        buffer = -1;
      } else if (buffer >= 6) {
        counts.lost++;
        buffer = -1;
      }
    }
    wasDown = isDown;
  });
  return counts;
}

type Tick = { type: "TICK"; pressed: boolean; released: boolean; isOpen: boolean };

/** The small job as three machines of a general state-machine library, each sent one event per frame. */
export function runByMachines(columns: InputColumns): Counts {
  const counts: Counts = { holds: 0, doubles: 0, hops: 0, lost: 0 };
  const make = setup({ types: { context: {} as { age: number }, events: {} as Tick } });
  const grow = assign<{ age: number }, Tick, undefined, Tick, never>({
    age: ({ context }) => context.age + 1,
  });
  const begin = assign<{ age: number }, Tick, undefined, Tick, never>({ age: 0 });
  const hold = createActor(
    make.createMachine({
      context: { age: 0 },
      initial: "up",
      states: {
        up: { on: { TICK: { guard: ({ event }) => event.pressed, target: "down", actions: begin } } },
        down: {
          on: {
            TICK: [
              {
                guard: ({ context }) => context.age + 1 >= 18,
                target: "done",
                actions: () => counts.holds++,
              },
              { guard: ({ event }) => event.released, target: "up" },
              { actions: grow },
            ],
          },
        },
        done: {
          on: {
            TICK: [
              { guard: ({ event }) => event.pressed, target: "down", actions: begin },
              { guard: ({ event }) => event.released, target: "up" },
            ],
          },
        },
      },
    }),
  ).start();
  const double = createActor(
    make.createMachine({
      context: { age: 0 },
      initial: "idle",
      states: {
        idle: { on: { TICK: { guard: ({ event }) => event.pressed, target: "one", actions: begin } } },
        one: {
          on: {
            TICK: [
              {
                guard: ({ context, event }) => event.pressed && context.age + 1 <= 12,
                target: "idle",
                actions: () => counts.doubles++,
              },
              { guard: ({ event }) => event.pressed, actions: begin },
              { guard: ({ context }) => context.age + 1 > 12, target: "idle" },
              { actions: grow },
            ],
          },
        },
      },
    }),
  ).start();
  const hop = createActor(
    make.createMachine({
      context: { age: 0 },
      initial: "idle",
      states: {
        idle: {
          on: {
            TICK: [
              { guard: ({ event }) => event.pressed && event.isOpen, actions: () => counts.hops++ },
              { guard: ({ event }) => event.pressed, target: "waiting", actions: begin },
            ],
          },
        },
        waiting: {
          on: {
            TICK: [
              {
                guard: ({ event }) => event.pressed && event.isOpen,
                target: "idle",
                actions: () => void (counts.lost++, counts.hops++),
              },
              { guard: ({ event }) => event.pressed, actions: [() => counts.lost++, begin] },
              { guard: ({ event }) => event.isOpen, target: "idle", actions: () => counts.hops++ },
              { guard: ({ context }) => context.age + 1 >= 6, target: "idle", actions: () => counts.lost++ },
              { actions: grow },
            ],
          },
        },
      },
    }),
  ).start();
  let wasDown = false;
  eachFrame(columns, (isDown, isOpen) => {
    const event: Tick = { type: "TICK", pressed: isDown && !wasDown, released: !isDown && wasDown, isOpen };
    hold.send(event);
    double.send(event);
    hop.send(event);
    wasDown = isDown;
  });
  return counts;
}
