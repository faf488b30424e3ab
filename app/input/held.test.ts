import { expect, test } from "vitest";
import { formatTrace, type Kit, type TraceEvent } from "#core";
import { compileRules } from "#stage";
import { findCtrlClash, warnOfBinding } from "./browserKeys";
import { createBindingGatherer } from "./capture";
import { createPadPoller, type PadReading } from "./gamepads";
import { wheelCode } from "./wheelCode";
import { createHeld, listStuckModifiers, type DropReason } from "./held";
import { createLiveSession } from "./liveSession";
import { createFigureKeeper } from "./sessionFigures";
import { trialGate, withTrialSwitches } from "./trialModes";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "hands",
  name: "Hands",
  rate: 60,
  controls: [
    { id: "leap", name: "Leap", bindings: [["key:Space"], ["pad:0"], ["mouse:0"]] },
    { id: "dash", name: "Dash", bindings: [["key:ShiftLeft", "key:KeyD"]] },
    { id: "squeeze", name: "Squeeze", bindings: [["pad:7"]], pressAt: 0.6, releaseAt: 0.3 },
  ],
  patterns: [
    { id: "leap", name: "Leap", kind: "press", control: "leap" },
    { id: "dash", name: "Dash", kind: "press", control: "dash" },
    { id: "squeeze", name: "Squeeze", kind: "hold", control: "squeeze", for: "3f", fire: "reach" },
  ],
};

/** Raw events as recorded: [ms, code, value, repeat?]. */
type Recorded = readonly [ms: number, code: string, value: number, repeat?: "repeat"];

function mustCompile(kit: Kit) {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error("the test's kit must compile");
  return compiled.value;
}

/** Feeds recorded events through the held state into a session, as the pad does. */
function playRecorded(events: readonly Recorded[], untilMs: number) {
  const rules = mustCompile(KIT);
  const { program } = rules;
  const held = createHeld();
  held.setControls(KIT.controls);
  const session = createLiveSession(rules, 0);
  const dropped: DropReason[] = [];
  for (const [ms, code, value, repeat] of events) {
    session.advance(ms - 8);
    dropped.push(held.report({ code, value, isRepeat: repeat !== undefined }));
    program.controls.forEach((control, c) => session.setControl(c, held.valueOf(control.id), ms));
  }
  session.advance(untilMs);
  const fired = formatTrace(program, session.trace).events.filter(
    (event): event is Extract<TraceEvent, { kind: "fired" }> => event.kind === "fired",
  );
  return { dropped, fired: fired.map(event => `${event.id}@${event.f}`) };
}

test("a held key that the system repeats is one press", () => {
  const repeats = Array.from({ length: 20 }, (_, k): Recorded => [600 + k * 33, "key:Space", 1, "repeat"]);
  const played = playRecorded([[100, "key:Space", 1], ...repeats, [1300, "key:Space", 0]], 1500);
  expect(played.fired).toEqual(["leap@6"]);
  expect(played.dropped.filter(reason => reason === "repeat").length).toBe(20);
});

test("a repeat that the system does not mark is dropped too", () => {
  const played = playRecorded(
    [
      [100, "key:Space", 1],
      [130, "key:Space", 1],
      [200, "key:Space", 0],
    ],
    400,
  );
  expect(played.dropped).toEqual(["", "repeat", ""]);
  expect(played.fired).toEqual(["leap@6"]);
});

test("two keys on one control: the second press is none while the first is held", () => {
  const played = playRecorded(
    [
      [50, "key:Space", 1],
      [80, "pad:0", 1],
      [120, "key:Space", 0],
      [160, "pad:0", 0],
      [250, "mouse:0", 1],
    ],
    400,
  );
  expect(played.fired).toEqual(["leap@3", "leap@15"]);
});

test("buttons held together play only while all are down", () => {
  const played = playRecorded(
    [
      [50, "key:KeyD", 1],
      [100, "key:ShiftLeft", 1],
      [150, "key:KeyD", 0],
    ],
    300,
  );
  expect(played.dropped).toEqual(["", "", ""]);
  expect(played.fired).toEqual(["dash@6"]);
});

test("thirty keys at once: the bound ones play, the others are reported as unbound", () => {
  const keys = Array.from({ length: 30 }, (_, k): Recorded => [100 + k, `key:F${k + 1}`, 1]);
  const played = playRecorded([...keys, [140, "key:Space", 1]], 400);
  expect(played.fired).toEqual(["leap@9"]);
  expect(played.dropped.filter(reason => reason === "not bound").length).toBe(30);
});

test("a trigger that wobbles about its points is one press", () => {
  const wobble = [0.2, 0.5, 0.62, 0.55, 0.61, 0.45, 0.35, 0.31, 0.66, 0.29, 0.1];
  const played = playRecorded(
    wobble.map((value, k): Recorded => [100 + k * 20, "pad:7", value]),
    600,
  );
  expect(played.fired).toEqual(["squeeze@12"]);
});

test("a release applies to every control, and only held codes are reported", () => {
  const held = createHeld();
  held.setControls(KIT.controls);
  held.report({ code: "pad:0", value: 1, isRepeat: false });
  held.report({ code: "key:Space", value: 1, isRepeat: false });
  held.holdOnScreen("squeeze", 0.7);
  expect(held.letGo(code => code.startsWith("pad:"))).toEqual(["pad:0"]);
  expect(held.valueOf("leap")).toBe(1);
  held.letAllGo();
  expect([held.valueOf("leap"), held.valueOf("squeeze"), held.isHeld()]).toEqual([0, 0, false]);
});

test("a modifier whose keyup event is missing is detected by the next key", () => {
  const event = { code: "KeyD", shiftKey: false, ctrlKey: true, altKey: false, metaKey: false };
  expect(listStuckModifiers(event, ["key:ShiftLeft", "key:ControlLeft", "key:KeyA"])).toEqual([
    "key:ShiftLeft",
  ]);
  expect(listStuckModifiers({ ...event, code: "ShiftLeft" }, ["key:ShiftLeft"])).toEqual([]);
});

function padReading(fields: Partial<PadReading>): PadReading {
  const rest = { index: 0, id: "A pad (Vendor: 1)", mapping: "standard", connected: true };
  return { ...rest, buttons: [{ value: 0 }, { value: 0 }], axes: [0, 0], ...fields };
}

test("a pad reports only changes, in half-axes; a disconnected one releases everything", () => {
  let pads: (PadReading | null)[] = [null, padReading({})];
  const poller = createPadPoller(() => pads);
  const poll = () => {
    const reported: [string, number][] = [];
    poller.poll((code, value) => reported.push([code, value]));
    return reported;
  };
  expect(poll()).toEqual([]);
  pads = [padReading({ buttons: [{ value: 1 }, { value: 0.251 }], axes: [-0.5, 0.001] })];
  expect(poll()).toEqual([
    ["pad:0", 1],
    ["pad:1", 0.25],
    ["pad:axis0-", 0.5],
  ]);
  expect(poll()).toEqual([]);
  expect(poller.status().pads).toEqual([
    { index: 0, id: expect.any(String), name: "A pad", isStandard: true },
  ]);
  pads = [padReading({ connected: false })];
  expect(poll()).toEqual([
    ["pad:0", 0],
    ["pad:1", 0],
    ["pad:axis0-", 0],
  ]);
});

test("two pads on one control: what one of them holds stays held when the other is unplugged", () => {
  const down = { buttons: [{ value: 1 }, { value: 0 }] };
  const up = { buttons: [{ value: 0 }, { value: 1 }] };
  let pads = [padReading(down), padReading({ ...up, index: 1 })];
  const poller = createPadPoller(() => pads);
  const poll = (numbers?: ReadonlySet<number>) => {
    const reported: [string, number][] = [];
    poller.poll((code, value) => reported.push([code, value]), numbers);
    return reported;
  };
  expect(poll()).toEqual([
    ["pad:0", 1],
    ["pad:1", 1],
  ]);
  pads = [pads[1]!];
  expect(poll()).toEqual([["pad:0", 0]]);
  // The second pad keeps its number.
  expect(poll(new Set([1, 2]))).toEqual([["pad2:1", 1]]);
});

test("a button held when the focus goes is up until it has been released, whatever other pads do", () => {
  let pads = [padReading({ buttons: [{ value: 1 }] }), padReading({ buttons: [{ value: 0 }], index: 1 })];
  const press = (first: number, second: number) => {
    pads = [
      padReading({ buttons: [{ value: first }] }),
      padReading({ buttons: [{ value: second }], index: 1 }),
    ];
  };
  const poller = createPadPoller(() => pads);
  const poll = () => {
    const reported: [string, number][] = [];
    poller.poll((code, value) => reported.push([code, value]));
    return reported;
  };
  expect(poll()).toEqual([["pad:0", 1]]);
  poller.ignoreHeld();
  expect(poll()).toEqual([]);
  press(1, 1);
  expect(poll()).toEqual([["pad:0", 1]]);
  press(1, 0);
  expect(poll()).toEqual([["pad:0", 0]]);
  press(0, 0);
  expect(poll()).toEqual([]);
  press(1, 0);
  expect(poll()).toEqual([["pad:0", 1]]);
});

test("a notch of the wheel is named by the direction in which it turned most", () => {
  expect(
    [
      [0, 100],
      [0, -3],
      [-50, 20],
      [50, 20],
      [0, 0],
    ].map(([deltaX, deltaY]) => wheelCode({ deltaX: deltaX!, deltaY: deltaY! })),
  ).toEqual(["wheel:down", "wheel:up", "wheel:left", "wheel:right", undefined]);
});

test("a missing or forbidden pad API means no pad", () => {
  expect(createPadPoller(undefined).status()).toEqual({ hasApi: false, pads: [] });
  const forbidden = createPadPoller(() => {
    throw new DOMException("not allowed", "SecurityError");
  });
  forbidden.poll(() => expect.unreachable());
  expect(forbidden.status().pads).toEqual([]);
});

test("a binding consists of the codes held at the first release", () => {
  const gatherer = createBindingGatherer();
  expect(gatherer.feed("key:KeyJ", false)).toBeUndefined();
  expect(gatherer.feed("key:ShiftLeft", true)).toBeUndefined();
  expect(gatherer.feed("pad:0", true)).toBeUndefined();
  expect(gatherer.feed("key:ShiftLeft", false)).toEqual(["key:ShiftLeft", "pad:0"]);
});

test.each([
  [["key:KeyJ"], ""],
  [["key:Escape"], "Escape gives the keys back to the page"],
  [["key:ControlLeft", "key:KeyW"], "the browser keeps this shortcut for itself"],
  [["key:AltLeft", "key:Tab"], "the system keeps this shortcut for itself"],
])("%j: %s", (binding, word) => {
  expect(warnOfBinding(binding)).toBe(word);
});

test("Ctrl on one control and W on another is reported", () => {
  const controls = [
    { name: "Crouch", bindings: [["key:ControlLeft"]] },
    { name: "Up", bindings: [["key:KeyW"], ["pad:12"]] },
  ];
  expect(findCtrlClash(controls)).toEqual({ ctrl: "Crouch", other: "Up" });
  expect(findCtrlClash(controls.slice(1))).toBeUndefined();
});

test("figures: shortest press and gap, delays from event to frame, turns of the screen", () => {
  const keeper = createFigureKeeper();
  keeper.edge("a", true, 100, 7, false);
  keeper.edge("a", false, 180, 11, false);
  keeper.edge("a", true, 230, 14, false);
  keeper.edge("a", false, 235, 15, true);
  keeper.ran(10, 120);
  keeper.ran(15, 260);
  keeper.turn(0);
  keeper.turn(16);
  keeper.turn(40);
  expect(keeper.read()).toEqual({
    repeatsDropped: 0,
    shortestPressMs: 5,
    shortestGapMs: 50,
    stretched: 1,
    delaysMs: [20, 80, 30, 25],
    turnsMs: [16, 24],
    readsMs: [],
  });
});

test("a mode can be turned to by hand for a try, and the kit's own rules keep their places", () => {
  const modal: Kit = {
    ...KIT,
    gates: [{ id: "g", name: "G" }],
    modes: [
      { id: "ground", name: "Ground" },
      { id: "air", name: "Air" },
    ],
  };
  const rules = mustCompile(withTrialSwitches(modal));
  const { program } = rules;
  const session = createLiveSession(rules, 0);
  expect(program.gates[0]!.id).toBe("g");
  session.advance(100);
  const gate = program.gates.findIndex(item => item.id === trialGate("air"));
  session.pulseGate(gate);
  session.advance(200);
  expect(session.state.mode).toBe(1);
  expect(withTrialSwitches(KIT)).toBe(KIT);
});
