// Joins a game to a live link of Moss Tap. Has the `step` of the runtime, so that a game changes one line to go from the one
// to the other. Never throws into the game's loop, and does nothing while there is no server. MIT.

const PROTOCOL = "moss-tap.link.v1";
const MAX_FRAMES = 120;
/** Bytes on their way above which frames are held back, and frames held back above which the take ends. */
const MAX_WAITING_BYTES = 32 * 1024;
const MAX_HELD_FRAMES = 600;
const [FIRST_WAIT_MS, LAST_WAIT_MS] = [250, 8000];
/**
 * After a wrong code: soon, because a server that has started again may not have the link yet; then rarely, because five
 * wrong codes in a minute shut its door for a minute.
 */
const WRONG_CODE_WAITS_MS = [3000, 20_000];
const FOR_GOOD = ["version", "rate"];

/** Adds to `changes` what differs from what was sent, and remembers it. Something absent is `absent`, or as it was. */
function compare(sent, now, absent) {
  const changes = {};
  for (const id of new Set([...Object.keys(now), ...(absent === undefined ? [] : sent.keys())])) {
    const value = Object.hasOwn(now, id) ? now[id] : absent;
    if (value === undefined || value === (sent.get(id) ?? false)) continue;
    sent.set(id, value);
    changes[id] = value;
  }
  return changes;
}

export function joinLink(options) {
  const {
    url = "ws://localhost:3000/link",
    code,
    name = "Game",
    rate = 60,
    asks = true,
    player,
    device,
  } = options;
  const Socket = options.WebSocket ?? globalThis.WebSocket;
  let socket;
  let timer;
  let waitMs = FIRST_WAIT_MS;
  let wrongCodes = 0;
  let isClosed = false;
  let state = "joining";
  let frame = -1;
  let [controls, gates, moves] = [[], [], []];
  let arrived = [];
  let held = [];
  let speed = 100;
  const sent = { controls: new Map(), gates: new Map() };
  const openGates = new Set();

  const report = (listener, value) => {
    try {
      listener?.(value);
    } catch (error) {
      console.error(error);
    }
  };

  const change = next => {
    if (state === next) return;
    state = next;
    report(options.onState, state);
  };

  const beginTake = () => {
    frame = -1;
    speed = 100;
    held = [];
    arrived = [];
    sent.controls.clear();
    sent.gates.clear();
    openGates.clear();
  };

  const send = message => {
    try {
      socket.send(JSON.stringify(message));
    } catch {
      // The connection is about to report that it is closed.
    }
  };

  const joinLater = () => {
    if (isClosed) return;
    change("joining");
    clearTimeout(timer);
    timer = setTimeout(connect, waitMs);
    timer.unref?.();
    waitMs = Math.min(LAST_WAIT_MS, waitMs * 2);
  };

  const receive = {
    welcome(message) {
      ({ controls, gates, moves } = message);
      waitMs = FIRST_WAIT_MS;
      wrongCodes = 0;
      beginTake();
      change("playing");
      report(options.onKit, message);
    },
    events({ events }) {
      for (const event of events) {
        if (event.kind === "gate") openGates[event.open ? "add" : "delete"](event.id);
        arrived.push(event);
      }
    },
    kit(message) {
      report(options.onKit, message);
    },
    fault(message) {
      report(options.onFault, message);
      if (state === "playing") return;
      if (FOR_GOOD.includes(message.code)) return stop("refused");
      waitMs = message.code === "code" ? WRONG_CODE_WAITS_MS[Math.min(wrongCodes++, 1)] : LAST_WAIT_MS;
      socket.close();
    },
  };

  function connect() {
    let own;
    try {
      own = socket = new Socket(url, PROTOCOL);
    } catch (error) {
      report(options.onFault, { t: "fault", code: "socket", message: String(error) });
      return stop("refused");
    }
    own.addEventListener("open", () =>
      send({ t: "join", version: 1, code, name, rate, asks, player, device }),
    );
    own.addEventListener("message", ({ data }) => {
      if (own !== socket) return;
      try {
        const message = JSON.parse(data);
        receive[message.t]?.(message);
      } catch (error) {
        console.error(error);
      }
    });
    own.addEventListener("error", () => {});
    own.addEventListener("close", () => {
      if (own === socket) joinLater();
    });
  }

  function stop(next) {
    isClosed = true;
    clearTimeout(timer);
    change(next);
    try {
      socket?.close();
    } catch {
      // It was never open.
    }
  }

  /** Sends the frames that were held back, or holds them back. Ends the take if too many wait. */
  const flush = () => {
    if (socket.bufferedAmount > MAX_WAITING_BYTES) {
      if (held.length > MAX_HELD_FRAMES) socket.close();
      return;
    }
    while (held.length > 1) send({ t: "frames", frames: held.splice(0, MAX_FRAMES) });
    if (held.length === 1) send({ t: "frame", ...held.pop() });
  };

  connect();
  return {
    rate,
    get state() {
      return state;
    },
    get frame() {
      return frame;
    },
    get controls() {
      return controls;
    },
    get gates() {
      return gates;
    },
    get moves() {
      return moves;
    },
    step(input) {
      if (state !== "playing" || socket.readyState !== 1) return [];
      const set = compare(sent.controls, input.controls ?? {}, false);
      const opened = compare(sent.gates, input.gates ?? {});
      const percent = input.speedPercent ?? 100;
      const next = { f: ++frame };
      if (Object.keys(set).length > 0) next.set = set;
      if (Object.keys(opened).length > 0) next.gates = opened;
      if (percent !== speed) next.speed = speed = percent;
      if (input.did?.length > 0) next.did = input.did.map(id => ({ kind: "performed", id }));
      held.push(next);
      flush();
      const events = arrived;
      arrived = [];
      return events;
    },
    isOpen: gate => openGates.has(gate),
    end() {
      if (state === "playing") send({ t: "end" });
      beginTake();
    },
    close: () => stop("closed"),
  };
}
