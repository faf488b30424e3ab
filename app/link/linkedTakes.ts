import type { Take } from "#core";
import {
  addCounts,
  countDifferences,
  createDifferenceReader,
  type DifferenceCounts,
  type DifferenceReader,
  type GameFrame,
  type HostedTake,
} from "#link";
import type { Evaluation } from "../document/evaluation";
import type { Workbench } from "../document/workbench";
import { createLinkedSession, type LinkedSession } from "../input/linkedSession";
import type { Pad } from "../input/pad";
import { createRecorder, type Recorder } from "../input/recorder";
import { takeOf } from "../input/recording";
import type { Library } from "../storage/library";
import type { Tabs } from "../storage/tabs";

/** The takes of a running game, as they are played: shown by the pad, stored while they grow, kept when they end. */
export interface LinkedTakes {
  /** `isWhole`: whether it is followed from its first frame, so that an earlier recording of it is not needed. */
  readonly begin: (take: HostedTake, id: string, isWhole: boolean) => void;
  readonly play: (frames: readonly GameFrame[], nowMs: number) => void;
  /** Keeps the take. */
  readonly end: () => void;
  /** Stops showing the take and leaves its recording as it is, to be followed again. */
  readonly detach: () => void;
  /** The frame of the game that was played last, −1 for none. */
  readonly frame: number;
  readonly counts: DifferenceCounts;
}

export interface LinkedTakesWorld {
  readonly workbench: Workbench;
  readonly evaluation: { readonly getState: () => Evaluation };
  readonly pad: Pick<Pad, "getState" | "showLinked">;
  readonly library: Pick<Library, "addChunk" | "dropRecording">;
  readonly tabs: Pick<Tabs, "markAlive">;
}

const NONE: DifferenceCounts = { agreed: 0, apart: 0, onlyGame: 0, onlyRules: 0 };

interface Playing {
  readonly id: string;
  readonly hosted: HostedTake;
  readonly kitId: string;
  /** Undefined in a tab that does not hold the pen: the one that does stores the recording. */
  recorder: Recorder | undefined;
  reader: DifferenceReader;
  read: LinkedSession;
  counts: DifferenceCounts;
}

/** Creates the takes of a link. */
export function createLinkedTakes({
  workbench,
  evaluation,
  pad,
  library,
  tabs,
}: LinkedTakesWorld): LinkedTakes {
  let playing: Playing | undefined;

  /** Returns the session, which is another one after an edit; undefined once the pad shows none. */
  const sessionNow = () => {
    const { session, isLinked } = pad.getState();
    return isLinked ? (session as LinkedSession) : undefined;
  };

  const compare = (own: Playing, session: LinkedSession, isEnd = false) => {
    if (own.read !== session) {
      own.read = session;
      own.reader = createDifferenceReader(session.program, session.gameHz);
      own.counts = NONE;
    }
    const pairs = own.reader.extend(session.trace, session.acts, isEnd);
    if (pairs.length > 0) own.counts = addCounts(own.counts, countDifferences(pairs));
  };

  /** The tab that holds the pen now follows the link itself. */
  const dropRecorder = (own: Playing) => {
    own.recorder?.end();
    own.recorder = undefined;
  };

  const nameTake = (take: Take, { game }: HostedTake): Take => ({
    ...take,
    ...(game.player === undefined ? {} : { player: game.player }),
    device: game.device ?? game.name,
  });

  return {
    get frame() {
      return (sessionNow()?.frames ?? 0) - 1;
    },
    get counts() {
      return playing?.counts ?? NONE;
    },
    begin(hosted, id, isWhole) {
      const { kit, holder } = workbench.getState();
      const { rules } = evaluation.getState();
      if (!kit || !rules) return;
      const session = createLinkedSession(rules, hosted.game.rate);
      const isOwn = (gateId: string) => kit.gates?.some(gate => gate.id === gateId) ?? false;
      const isWriter = holder === "ours";
      // A take that is followed again is written from its beginning.
      if (isWriter && isWhole) void library.dropRecording(kit.id, id);
      playing = {
        id,
        hosted,
        kitId: kit.id,
        recorder: isWriter ? createRecorder(library, tabs, kit.id, id, isOwn) : undefined,
        reader: createDifferenceReader(session.program, session.gameHz),
        read: session,
        counts: NONE,
      };
      pad.showLinked(session);
    },
    play(frames, nowMs) {
      const session = sessionNow();
      if (!session || !playing) return;
      frames.forEach(session.play);
      if (playing.hosted.game.asks === false || session.acts.length > 0) compare(playing, session);
      if (workbench.getState().holder !== "ours") dropRecorder(playing);
      playing.recorder?.keepUp(session, nowMs);
      pad.showLinked(session);
    },
    end() {
      const own = playing;
      const session = sessionNow();
      playing = undefined;
      if (!own || !session) return;
      pad.showLinked(undefined);
      const { takes } = workbench.getState();
      const recorder = own.recorder;
      if (session.frames === 0 || !recorder || takes.some(({ id }) => id === own.id)) return recorder?.end();
      const named = { id: own.id, name: workbench.nameRecording(), kitId: own.kitId };
      const take = nameTake(
        takeOf(session.recording, session.frames, named, () => true),
        own.hosted,
      );
      void workbench.keepRecording({
        take,
        what: `played ${take.name} in ${own.hosted.game.name}`,
        finish: whole => recorder.finish(session, whole),
        end: recorder.end,
      });
    },
    detach() {
      const own = playing;
      const session = sessionNow();
      playing = undefined;
      if (session) {
        own?.recorder?.keepUp(session, Infinity);
        pad.showLinked(undefined);
      }
      own?.recorder?.end();
    },
  };
}
