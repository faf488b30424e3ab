import type { Kit, Take } from "#core";
import type { Rules } from "#stage";
import { createPadPoller, type PadReading } from "../input/gamepads";
import { createHeld } from "../input/held";
import { createLiveSession, type LiveSession } from "../input/liveSession";
import type { PageListener } from "../input/pageEvents";
import { takeOf } from "../input/recording";
import type { Scene } from "../scene/scene";

/** The dependencies of a round. */
export interface RoundWorld {
  readonly nowMs: () => number;
  readonly listen: (listener: PageListener) => () => void;
  readonly readPads: (() => readonly (PadReading | null)[]) | undefined;
}

/** A kit played from the first frame to the last. */
export interface Round {
  readonly session: LiveSession;
  readonly inHand: () => Scene["inHand"];
  readonly isHeld: (controlId: string) => boolean;
  /** Steps the frames that are due. */
  readonly turn: () => void;
  readonly holdOnScreen: (controlId: string, isDown: boolean) => void;
  readonly turnGate: (gateId: string) => void;
  /**
   * Releases everything and returns what was played as a take, or undefined if no frame was. Further calls
   * return undefined.
   */
  readonly end: (named: { readonly id: string; readonly name: string }) => Take | undefined;
}

const DEVICE_WORDS = { key: "keys", mouse: "mouse", pad: "pad", touch: "touch" } as const;

/** Two more frames run after everything is released, so that the last edge is part of the take. */
const LAST_FRAMES = 2;

/** Starts a round with rules and bound controls. `leave` is called when the player ends it. */
export function beginRound(
  world: RoundWorld,
  rules: Rules,
  controls: Kit["controls"],
  leave: () => void,
): Round {
  const { nowMs } = world;
  const held = createHeld();
  held.setControls(controls);
  const poller = createPadPoller(world.readPads);
  const session = createLiveSession(rules, nowMs());
  const used = new Set<keyof typeof DEVICE_WORDS>();
  const bound = new Set(controls.flatMap(control => control.bindings.flat()));
  let inHand: Scene["inHand"] = "key";
  let isOver = false;

  function updateControls(timeMs: number): void {
    session.program.controls.forEach(({ id }, c) => session.setControl(c, held.valueOf(id), timeMs));
  }
  function letGo(isGone: (code: string) => boolean, timeMs: number): void {
    held.letGo(isGone);
    updateControls(timeMs);
  }
  function letAllGo(timeMs: number): void {
    held.letAllGo();
    poller.reset();
    updateControls(timeMs);
  }
  function report(code: string, value: number, isRepeat: boolean, timeMs: number): void {
    if (held.report({ code, value, isRepeat }) !== "") return;
    const [device] = code.split(":");
    if (device === "key" || device === "pad" || device === "mouse") {
      inHand = device;
      used.add(device);
    }
    updateControls(timeMs);
  }
  const stop = world.listen({
    report: ({ code, value, isRepeat }, timeMs) => report(code, value, isRepeat, timeMs),
    codesDown: held.codesDown,
    isBound: code => bound.has(code),
    letStuckGo: (codes, timeMs) => letGo(code => codes.includes(code), timeMs),
    bench: () => undefined,
    leave,
    letAllGo,
    rest: (isResting, timeMs) => isResting && letAllGo(timeMs),
    hide: (isHidden, timeMs) => (isHidden ? session.pause(timeMs) : session.resume(timeMs)),
    padsChanged: () => letGo(code => code.startsWith("pad:"), nowMs()),
  });
  return {
    session,
    inHand: () => inHand,
    isHeld: id => held.valueOf(id) > 0,
    turn() {
      const now = nowMs();
      poller.poll((code, value) => report(code, value, false, now));
      session.advance(now);
    },
    holdOnScreen(controlId, isDown) {
      used.add("touch");
      held.holdOnScreen(controlId, isDown ? 1 : 0);
      updateControls(nowMs());
    },
    turnGate(gateId) {
      const gate = session.program.gates.findIndex(({ id }) => id === gateId);
      if (gate >= 0) session.setGate(gate, session.state.painted[gate] === 0);
    },
    end({ id, name }) {
      if (isOver) return undefined;
      isOver = true;
      stop();
      const now = nowMs();
      letAllGo(now);
      session.resume(now);
      session.advance(now + (LAST_FRAMES * 1000) / session.program.rateHz);
      if (session.state.frame < 0) return undefined;
      const isOwn = (gateId: string) => rules.kit.gates?.some(gate => gate.id === gateId) ?? false;
      const named = { id, name, kitId: rules.kit.id };
      const take = takeOf(session.recording, session.state.frame + 1, named, isOwn);
      const device = [...used].map(key => DEVICE_WORDS[key]).join(", ");
      return device === "" ? take : { ...take, device };
    },
  };
}
