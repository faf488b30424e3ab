import { nanoid } from "nanoid";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { Kit } from "#core";
import {
  createHostedLink,
  type DifferenceCounts,
  type Fault,
  type HostedLink,
  type HostMessage,
  type Joined,
  type KitInForce,
} from "#link";
import type { NextTurn } from "../document/playback";
import type { LocalStore } from "../storage/setAside";
import type { Notify } from "../ui/notices";
import { createLinkedTakes, type LinkedTakesWorld } from "./linkedTakes";
import { readLinkRecord, writeLinkRecord, type LinkRecord } from "./linkRecord";
import type { LinkSocket, LinkSocketListeners } from "./linkSocket";

/** The state of the live link of the open kit. */
export interface GameLinkState {
  /** `away`: the connection to the server broke, and is made again. */
  readonly status: "off" | "opening" | "open" | "away";
  readonly code: string | undefined;
  readonly game: Joined | undefined;
  /** How long a message takes to the game and back, in ms; undefined until it was measured. */
  readonly roundTripMs: number | undefined;
  /** The last frame of the game, −1 before a take begins. */
  readonly frame: number;
  /** When edited rules were last in force: from which frame of the game, and how long after the edit, in ms. */
  readonly inForce: { readonly from: number; readonly afterMs: number } | undefined;
  /** The last faults, newest first. */
  readonly faults: readonly string[];
  readonly counts: DifferenceCounts | undefined;
}

/** The live link of a page: one running game, for the open kit. */
export interface GameLink extends Pick<
  StoreApi<GameLinkState>,
  "getState" | "getInitialState" | "subscribe"
> {
  readonly open: () => void;
  /** Ends the link for good. A take in progress is kept. */
  readonly close: () => void;
}

export interface GameLinkWorld extends LinkedTakesWorld {
  readonly evaluation: LinkedTakesWorld["evaluation"] & {
    readonly subscribe: StoreApi<unknown>["subscribe"];
  };
  readonly notify: Notify;
  readonly nowMs: () => number;
  readonly nextTurn: NextTurn;
  readonly setTimer: (ms: number, run: () => void) => () => void;
  readonly localStorage: LocalStore | undefined;
  /** Connects to the server; undefined where there is none. */
  readonly openSocket: ((listeners: LinkSocketListeners) => LinkSocket) | undefined;
}

const OFF: GameLinkState = {
  status: "off",
  code: undefined,
  game: undefined,
  roundTripMs: undefined,
  frame: -1,
  inForce: undefined,
  faults: [],
  counts: undefined,
};

const MAX_FAULTS = 5;
/** The WebSocket status with which the server ends a link that a host closed. */
const CLOSED_BY_HOST = 1000;
const [FIRST_WAIT_MS, LAST_WAIT_MS] = [500, 8000];
/** The longest time for which frames are played between two turns of the screen. */
const SLICE_MS = 50;
/** A page in the background gets no turns of the screen; its frames are played at this interval. */
const HIDDEN_MS = 250;

/** The shortest time between two runs; what comes sooner waits for the next turn of the screen. */
const REST_MS = 8;

/** Runs tasks in order: at once, so that the next picture shows them, or in slices at the next turns if many come. */
function createQueue({ nextTurn, setTimer, nowMs }: Pick<GameLinkWorld, "nextTurn" | "setTimer" | "nowMs">) {
  const tasks: (() => void)[] = [];
  let callOff: (() => void) | undefined;
  let ranMs = -Infinity;
  const run = () => {
    callOff?.();
    callOff = undefined;
    const beganMs = (ranMs = nowMs());
    while (tasks.length > 0 && nowMs() - beganMs < SLICE_MS) tasks.shift()!();
    if (tasks.length > 0) schedule();
  };
  const schedule = () => {
    if (callOff) return;
    const stops = [nextTurn(run), setTimer(HIDDEN_MS, run)];
    callOff = () => stops.forEach(stop => stop());
  };
  return {
    put(task: () => void) {
      tasks.push(task);
      if (callOff === undefined && nowMs() - ranMs >= REST_MS) run();
      else schedule();
    },
    clear() {
      tasks.length = 0;
      callOff?.();
      callOff = undefined;
    },
  };
}

/** Creates the live link of one page, closed. A link that this browser had open is followed when its kit is open. */
export function createGameLink(world: GameLinkWorld): GameLink {
  const { workbench, evaluation, nowMs, setTimer, localStorage } = world;
  const store = createStore<GameLinkState>(() => OFF);
  const takes = createLinkedTakes(world);
  const queue = createQueue(world);
  let record: LinkRecord | undefined;
  let socket: LinkSocket | undefined;
  let hosted: HostedLink | undefined;
  let callOffRetry = () => {};
  let waitMs = FIRST_WAIT_MS;
  /** The message that the server has not answered yet. */
  let asked: "open" | "follow" | undefined;
  let revision = 0;
  /** The kit that the server has, or was sent; and when the edit in progress was sent. */
  let sentKit: Kit | undefined;
  let editedMs: number | undefined;
  /** A recording that a page before this one left; not offered as cut off while it may be followed. */
  let endLeft = () => {};

  const send = (message: object) => socket?.send(JSON.stringify(message));
  const reportFault = (words: string) =>
    store.setState(({ faults }) => ({ faults: [words, ...faults].slice(0, MAX_FAULTS) }));

  const remember = (change: Partial<LinkRecord>) => {
    if (!record) return;
    record = { ...record, ...change };
    writeLinkRecord(localStorage, record);
  };

  const showFrame = () => {
    const { frame, counts } = takes;
    const isCompared = counts.agreed + counts.apart + counts.onlyGame + counts.onlyRules > 0;
    store.setState({ frame, counts: isCompared ? counts : undefined });
  };

  const createHosted = () => {
    const own: HostedLink = createHostedLink({
      onGame: game => store.setState({ game, roundTripMs: undefined }),
      onPulse: roundTripMs => store.setState({ roundTripMs }),
      onTake(take, from) {
        const takeId = `${record!.key}-${own.missing.take}${from > 0 ? `-from-${from}` : ""}`;
        remember({ takeId });
        queue.put(() => takes.begin(take, takeId, from === 0));
      },
      onFrames: (_take, frames) =>
        queue.put(() => {
          takes.play(frames, nowMs());
          showFrame();
        }),
      onEnd(_take, why) {
        if (why === "fault")
          reportFault("the game was closed: it sent too many messages that cannot be read");
        queue.put(() => {
          takes.end();
          showFrame();
        });
      },
      onKit: takeKit,
    });
    return own;
  };

  const sendOpen = (code: string | undefined) => {
    const { rules } = evaluation.getState();
    if (!rules) return;
    asked = "open";
    revision = 1;
    sentKit = rules.kit;
    hosted = createHosted();
    send({ t: "open", kit: rules.kit, revision, ...(code === undefined ? {} : { code }) });
  };

  const sendFollow = (code: string) => {
    asked = "follow";
    const isAgain = hosted !== undefined;
    hosted ??= createHosted();
    const { from, take } = hosted.missing;
    send({ t: "follow", code, from, ...(isAgain ? { take } : {}) });
  };

  /** Sends the rules to the game, one edit at a time: the newest, once the one before is in force. */
  const sendEdit = () => {
    const { rules } = evaluation.getState();
    const isOurs = workbench.getState().holder === "ours";
    if (store.getState().status !== "open" || editedMs !== undefined || !isOurs) return;
    if (!rules || !sentKit || rules.kit === sentKit || rules.kit.id !== record?.kitId) return;
    sentKit = rules.kit;
    editedMs = nowMs();
    send({ t: "edit", revision: ++revision, kit: rules.kit });
  };

  function takeKit({ revision: known, from, kit }: KitInForce): void {
    revision = Math.max(revision, known);
    const { rules } = evaluation.getState();
    if (editedMs !== undefined) store.setState({ inForce: { from, afterMs: nowMs() - editedMs } });
    // Unasked, as after a reload: the rules here may be others than those of the server.
    else sentKit = JSON.stringify(kit) === JSON.stringify(rules?.kit) ? rules?.kit : kit;
    editedMs = undefined;
    sendEdit();
  }

  const endTake = () => {
    if (hosted?.take) hosted.receive({ t: "left", why: "gone" });
    hosted = undefined;
  };

  const receiveFault = ({ code, message }: Fault) => {
    // The server has started again since: the link is opened again with the code that games know.
    if (asked === "follow" && code === "code") {
      endTake();
      endLeft();
      remember({ key: nanoid(8) });
      return sendOpen(record?.code);
    }
    if (asked === "open" && code === "taken") return sendOpen(undefined);
    editedMs = undefined;
    reportFault(message);
    if (asked !== undefined) close();
  };

  const receive = (message: HostMessage) => {
    if (message.t === "fault") return receiveFault(message);
    hosted?.receive(message);
    if (message.t !== "opened") return;
    const isOpened = asked === "open";
    asked = undefined;
    waitMs = FIRST_WAIT_MS;
    remember({ code: message.code });
    store.setState({ status: "open", code: message.code });
    endLeft();
    if (isOpened) sendEdit();
  };

  const onClosed = (closedWith: number) => {
    socket = undefined;
    asked = editedMs = undefined;
    const { status } = store.getState();
    if (closedWith === CLOSED_BY_HOST) return forget();
    if (status === "opening") {
      const isResumed = record?.code !== "";
      record = undefined;
      store.setState(OFF);
      endLeft();
      if (isResumed) return;
      world.notify({
        tone: "trouble",
        title: "The server of this page does not answer, so no game can be linked.",
        details: ["Start it with bin/start, and link the game again."],
      });
      return;
    }
    store.setState({ status: "away" });
    callOffRetry = setTimer(waitMs, connect);
    waitMs = Math.min(LAST_WAIT_MS, waitMs * 2);
  };

  function connect(): void {
    if (!world.openSocket) return;
    const own = world.openSocket({
      onOpen() {
        if (own !== socket) return;
        if (record && record.code !== "") sendFollow(record.code);
        else sendOpen(undefined);
      },
      onMessage: text => own === socket && receive(JSON.parse(text) as HostMessage),
      onClose: status => own === socket && onClosed(status),
    });
    socket = own;
  }

  /** Leaves the connection; the link remains on the server. */
  const disconnect = () => {
    callOffRetry();
    const own = socket;
    socket = hosted = sentKit = editedMs = asked = undefined;
    own?.close();
    store.setState(OFF);
  };

  function close(): void {
    if (store.getState().status === "off") return;
    send({ t: "close" });
    forget();
  }

  /** Keeps the take in progress, and ends the link here. */
  function forget(): void {
    endTake();
    record = undefined;
    writeLinkRecord(localStorage, undefined);
    disconnect();
  }

  const begin = (next: LinkRecord) => {
    record = next;
    waitMs = FIRST_WAIT_MS;
    store.setState({ ...OFF, status: "opening", code: next.code || undefined });
    connect();
  };

  const left = readLinkRecord(localStorage);
  if (left?.takeId !== undefined) endLeft = world.tabs.markAlive(left.takeId);

  /** The kit for which a stored link was looked for. */
  let lookedFor: string | undefined;
  /** Follows a link that this browser has open for the kit, once this tab may write the kit. */
  const resume = () => {
    const { kit, holder } = workbench.getState();
    if (!kit || kit.id === lookedFor || holder !== "ours" || !evaluation.getState().rules) return;
    lookedFor = kit.id;
    if (store.getState().status !== "off") return;
    const stored = readLinkRecord(localStorage);
    if (stored?.kitId === kit.id) begin(stored);
  };

  workbench.onLeave(() => {
    queue.clear();
    takes.detach();
    disconnect();
    record = lookedFor = undefined;
  });
  evaluation.subscribe(() => {
    sendEdit();
    resume();
  });
  workbench.subscribe(({ holder }, before) => {
    if (holder !== before.holder) resume();
  });

  return {
    ...store,
    open() {
      const { kit } = workbench.getState();
      if (!kit || store.getState().status !== "off" || !workbench.mayEdit()) return;
      begin({ kitId: kit.id, code: "", key: nanoid(8) });
    },
    close,
  };
}
