import { nanoid } from "nanoid";
import type { StoreApi } from "zustand/vanilla";
import type { Assist, Kit, Take } from "#core";
import type { Workbench } from "../document/workbench";
import type { Library } from "../storage/library";
import type { Tabs } from "../storage/tabs";
import { deviceName } from "./deviceName";
import type { LiveSession } from "./liveSession";
import type { PadState } from "./padState";
import { createRecorder, type Recorder } from "./recorder";
import { hasAfter, takeOf } from "./recording";

/** The recording of a pad: stored while it grows, and kept as a take when it ends. */
export interface PadRecorder {
  readonly begin: (kit: Kit) => void;
  /** Call periodically: stores what is recorded, if anything is. */
  readonly keepUp: (session: LiveSession, nowMs: number) => void;
  /** Ends the recording, if there is one, and keeps it as a take if it has a frame. */
  readonly end: (session: LiveSession) => void;
  /**
   * Ends the recording before the session goes back to a frame: it is kept as a take if it has input after that frame. Another
   * one begins, with what both share.
   */
  readonly keepTry: (session: LiveSession, frame: number) => void;
  /** Returns what was played as a take; undefined if no frame was. */
  readonly takePlayed: (session: LiveSession, id: string) => Take | undefined;
}

interface PadRecorderWorld {
  readonly workbench: Workbench;
  readonly library: Pick<Library, "addChunk" | "dropRecording">;
  readonly tabs: Pick<Tabs, "markAlive">;
  readonly store: Pick<StoreApi<PadState>, "getState">;
  readonly assistOf: (kit: Kit) => Assist | undefined;
  /** Called when a take was made of a session. */
  readonly onTake: (id: string, session: LiveSession) => void;
}

/** Returns a function that excludes manually held gates that only serve to try a mode; they get no lane. */
function isOwnGate(kit: Kit): (gateId: string) => boolean {
  return gateId => kit.gates?.some(gate => gate.id === gateId) ?? false;
}

/** Returns the name of the device of the last input; undefined if there was none. */
function deviceUsed({ log, pads }: PadState): string | undefined {
  const code = log.find(event => /^(key|pad\d?|mouse|wheel|screen):/.test(event.code))?.code;
  return code === undefined ? undefined : deviceName(code, pads.pads);
}

/** Creates the recorder of one pad. */
export function createPadRecorder(world: PadRecorderWorld): PadRecorder {
  const { workbench, library, tabs } = world;
  let current: Recorder | undefined;
  let endGuard = () => {};

  function takePlayed(session: LiveSession, id: string): Take | undefined {
    const { kit, takes } = workbench.getState();
    if (!kit || session.frames === 0) return undefined;
    const named = { id, name: workbench.nameRecording(), kitId: session.rules.kit.id };
    const assist = world.assistOf(kit);
    const take = takeOf(session.recording, session.frames, named, isOwnGate(kit));
    world.onTake(id, session);
    const player = takes.findLast(item => item.player !== undefined)?.player;
    const device = deviceUsed(world.store.getState());
    return {
      ...take,
      ...(player === undefined ? {} : { player }),
      ...(device === undefined ? {} : { device }),
      ...(assist ? { note: `played with “${assist.name}” on` } : {}),
    };
  }

  /** Ends the present recording; nothing of it is left if it is not to be kept. */
  function finish(session: LiveSession, isKept: boolean): void {
    endGuard();
    endGuard = () => {};
    const ended = current;
    current = undefined;
    if (!isKept) return ended?.drop();
    const take = ended && takePlayed(session, ended.id);
    if (!take) return ended?.end();
    void workbench.keepRecording({
      take,
      what: `recorded ${take.name}`,
      finish: whole => ended.finish(session, whole),
      end: ended.end,
    });
  }

  function begin(kit: Kit): void {
    endGuard = workbench.guardPast();
    current = createRecorder(library, tabs, kit.id, nanoid(8), isOwnGate(kit));
  }

  return {
    begin,
    keepUp: (session, nowMs) => current?.keepUp(session, nowMs),
    end: session => finish(session, true),
    keepTry(session, frame) {
      const { kit } = workbench.getState();
      if (!kit || !current) return;
      finish(session, hasAfter(session.recording, frame));
      begin(kit);
    },
    takePlayed,
  };
}
