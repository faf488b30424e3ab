import type { Kit, Move } from "#core";
import { stageOf } from "#stage";
import { letFollow, waitUntilFree } from "../cancelEdits";
import { findGate, giveDuel, giveRopes, giveRunner } from "../giveStage";
import { freshId } from "../freshId";
import { applyStarter, STARTERS } from "../starters/starters";

/** A press of the scripted player, in frames since its goal's turn: [control, from, to]. */
export type HandPress = readonly [control: string, from: number, to: number];

/** A kit extended by one goal, and the presses that show it. */
interface Grown {
  readonly kit: Kit;
  readonly presses: readonly HandPress[];
  /** Whether the presses count from the start of the take, because a prompt appears by the clock. */
  readonly isByClock?: boolean;
}

/** A feature a designer can ask for when a kit is created. */
export interface Goal {
  readonly id: string;
  readonly words: string;
  readonly line: string;
  /** The best stage for it; the first goal that has one decides. */
  readonly stage: (kit: Kit) => Kit;
  readonly grow: (kit: Kit) => Grown;
}

/** Returns the control with a name, or a new one on the first of its keys and pad buttons that is free. */
function giveControl(
  kit: Kit,
  name: string,
  keys: readonly string[],
  buttons: readonly string[],
): { kit: Kit; id: string } {
  const known = kit.controls.find(control => control.name === name);
  if (known) return { kit, id: known.id };
  const taken = new Set(kit.controls.flatMap(control => control.bindings.flat()));
  const free = (codes: readonly string[]) => codes.filter(code => !taken.has(code)).slice(0, 1);
  const bindings = [...free(keys), ...free(buttons)].map(code => [code]);
  const id = freshId(name, new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id)));
  return { kit: { ...kit, controls: [...kit.controls, { id, name, bindings }] }, id };
}

function start(kit: Kit, starterId: string, controlId: string): Kit {
  const starter = STARTERS.find(item => item.id === starterId);
  if (!starter) throw new Error(`there is no starter "${starterId}"`);
  return applyStarter(kit, starter, controlId).kit;
}

/** Returns a kit with a move on the pattern with a name. */
function giveMove(kit: Kit, name: string, patternName: string, more: Partial<Move> = {}): Kit {
  const pattern = kit.patterns.find(item => item.name === patternName);
  if (!pattern) throw new Error(`there is no pattern "${patternName}"`);
  const moves = kit.moves ?? [];
  const id = freshId(name, new Set(moves.map(move => move.id)));
  return { ...kit, moves: [...moves, { id, name, pattern: pattern.id, ...more }] };
}

const isRunner = (kit: Kit) => (kit.stage as { kind?: unknown } | undefined)?.kind === "runner";
const isDuel = (kit: Kit) => (kit.stage as { kind?: unknown } | undefined)?.kind === "duel";
const strike = (kit: Kit, force: number) => (isDuel(kit) ? { effect: { strike: force } } : {});

const footingOf = (kit: Kit) => kit.gates?.find(gate => /^footing$/i.test(gate.name))?.id;

/** The most frames for which a body of the runner's level walks to its left wall, from anywhere. */
const TO_THE_WALL = 290;

/** Returns a kit with a jump on a control called Leap, unless it has one, and the id of that control. */
function giveJump(was: Kit): { kit: Kit; id: string } {
  const { kit, id } = giveControl(was, "Leap", ["key:Space", "key:KeyZ"], ["pad:0"]);
  const hasJump = kit.moves?.some(({ name }) => name === "Jump") ?? false;
  return { kit: hasJump ? kit : start(kit, "late", id), id };
}

const giveLeft = (kit: Kit) => giveControl(kit, "Left", ["key:ArrowLeft", "key:KeyA"], ["pad:14"]);
const giveUp = (kit: Kit) => giveControl(kit, "Up", ["key:ArrowUp", "key:KeyW"], ["pad:12"]);
const giveDown = (kit: Kit) => giveControl(kit, "Down", ["key:ArrowDown", "key:KeyS"], ["pad:13"]);

/** Returns a kit whose runner opens a gate of its stage, and the id of that gate; on another stage a gate opened by hand. */
function giveStageGate(kit: Kit, field: "wall" | "falling", name: string): { kit: Kit; id: string } {
  const stage = stageOf(kit);
  const known = stage?.kind === "runner" ? stage.gates[field] : undefined;
  if (known !== undefined) return { kit, id: known };
  const { id, gates } = findGate(kit, name);
  const opened =
    stage?.kind === "runner" ? { stage: { ...stage, gates: { ...stage.gates, [field]: id } } } : {};
  return { kit: { ...kit, gates, ...opened }, id };
}

/** Returns a kit with a starter on a control, unless it has a pattern with the name that this gives. */
const giveStart = (kit: Kit, starterId: string, controlId: string, patternName: string) =>
  kit.patterns.some(({ name }) => name === patternName) ? kit : start(kit, starterId, controlId);

/** Returns a kit whose runner aims dashes up and down by controls of those names. */
function giveAim(was: Kit): Kit {
  const raised = giveUp(was);
  const { kit, id: down } = giveDown(raised.kit);
  const stage = stageOf(kit);
  if (stage?.kind !== "runner") return was;
  return { ...kit, stage: { ...stage, run: { ...stage.run, up: raised.id, down } } };
}

/** Returns a kit with a thin beam above the left end of its level, two tiles above the ground. */
function giveBeam(kit: Kit): Kit {
  const stage = stageOf(kit);
  if (stage?.kind !== "runner") return kit;
  const ground = stage.level.findIndex(row => row.startsWith("#"));
  const level = stage.level.map((row, r) => (r === ground - 2 ? `----${row.slice(4)}` : row));
  return { ...kit, stage: { ...stage, level } };
}

/** Every goal, in display order. */
export const GOALS: readonly Goal[] = [
  {
    id: "jump",
    words: "A jump",
    line: "with coyote at the ledge and a buffer for a press before landing",
    stage: giveRunner,
    grow(was) {
      const { kit, id } = giveControl(was, "Leap", ["key:Space", "key:KeyZ"], ["pad:0"]);
      const begun = start(kit, "late", id);
      const height = { by: "cut", control: id, to: 0.4 };
      const stage = isRunner(begun) ? { stage: { ...(begun.stage as object), height } } : {};
      return { kit: { ...begun, ...stage }, presses: [] };
    },
  },
  {
    id: "wall-kick",
    words: "A wall kick",
    line: "off a wall in the air, also a moment after it was left",
    stage: giveRunner,
    grow(was) {
      const jumping = giveJump(was);
      const { kit: walking, id: left } = giveLeft(jumping.kit);
      const { kit, id: wall } = giveStageGate(walking, "wall", "Wall");
      const footing = footingOf(kit);
      return {
        kit: giveMove(kit, "Wall kick", "Leap press", {
          needs: [{ gate: wall, coyote: "6f" }],
          ...(footing ? { bans: [footing] } : {}),
          buffer: "4f",
          ...(isRunner(kit) ? { effect: { kick: 9, up: 17, for: "9f" } } : {}),
        }),
        presses: [
          [left, 0, TO_THE_WALL + 26],
          [jumping.id, TO_THE_WALL, TO_THE_WALL + 12],
          [jumping.id, TO_THE_WALL + 20, TO_THE_WALL + 30],
        ],
      };
    },
  },
  {
    id: "fast-fall",
    words: "A fast fall",
    line: "down in the air: from the top on it falls at a speed of its own",
    stage: giveRunner,
    grow(was) {
      const jumping = giveJump(was);
      const { kit: steered, id: down } = giveDown(jumping.kit);
      const { kit, id: falling } = giveStageGate(steered, "falling", "Falling");
      return {
        kit: giveMove(giveStart(kit, "press", down, "Down press"), "Fast fall", "Down press", {
          needs: [{ gate: falling }],
          buffer: "12f",
          ...(isRunner(kit) ? { effect: { plunge: 30 } } : {}),
        }),
        presses: [
          [jumping.id, 0, 14],
          [down, 16, 34],
        ],
      };
    },
  },
  {
    id: "drop",
    words: "Drop through a beam",
    line: "down and the jump together: it falls through the thin beam below",
    stage: giveRunner,
    grow(was) {
      const jumping = giveJump(giveBeam(was));
      const { kit: walking, id: left } = giveLeft(jumping.kit);
      const { kit, id: down } = giveDown(walking);
      const id = freshId("drop-down", new Set(kit.patterns.map(pattern => pattern.id)));
      const together: Kit["patterns"][number] = {
        id,
        name: "Down and leap",
        kind: "chord",
        controls: [down, jumping.id],
        spread: "6f",
      };
      const footing = footingOf(kit);
      return {
        kit: giveMove({ ...kit, patterns: [...kit.patterns, together] }, "Drop", "Down and leap", {
          ...(footing ? { needs: [{ gate: footing }] } : {}),
          priority: 5,
          ...(isRunner(kit) ? { effect: { drop: true } } : {}),
        }),
        presses: [
          [left, 0, TO_THE_WALL],
          [jumping.id, TO_THE_WALL, TO_THE_WALL + 20],
          [down, TO_THE_WALL + 60, TO_THE_WALL + 70],
          [jumping.id, TO_THE_WALL + 60, TO_THE_WALL + 70],
        ],
      };
    },
  },
  {
    id: "dash",
    words: "A dash with a cancel",
    line: "in the direction held, with a buffer; the jump may cut it short",
    stage: giveRunner,
    grow(was) {
      const jumping = giveJump(was);
      const { kit, id } = giveControl(
        giveAim(jumping.kit),
        "Dash",
        ["key:KeyV", "key:KeyB"],
        ["pad:4", "pad:6"],
      );
      const dashing = giveMove(giveStart(kit, "press", id, "Dash press"), "Aimed dash", "Dash press", {
        slot: "dash",
        frames: { startup: "0f", active: "8f", recovery: "12f" },
        bans: ["busy:dash"],
        buffer: "6f",
        ...(isRunner(kit) ? { effect: { aim: 16, for: "8f" } } : {}),
      });
      const [first, second] = [
        dashing.moves!.length - 1,
        dashing.moves!.findIndex(({ name }) => name === "Jump"),
      ];
      const waiting = waitUntilFree(dashing, first, second);
      return {
        kit: letFollow(waiting, first, second, { when: "any", from: "4f", to: "20f" }),
        presses: [
          [id, 0, 4],
          [jumping.id, 8, 20],
        ],
      };
    },
  },
  {
    id: "charge",
    words: "A charge",
    line: "held longer it gives more, in three levels",
    stage: giveDuel,
    grow(was) {
      const { kit, id } = giveControl(was, "Brace", ["key:KeyL", "key:KeyM"], ["pad:7", "pad:5"]);
      const begun = start(kit, "charge", id);
      const footing = footingOf(begun);
      const charged = isRunner(begun)
        ? {
            ...begun,
            patterns: begun.patterns.map(item =>
              item.kind === "charge" ? { ...item, output: [8, 26] as const } : item,
            ),
          }
        : begun;
      const more: Partial<Move> = isRunner(begun)
        ? {
            effect: { leap: "output" },
            ...(footing ? { needs: [{ gate: footing }], spends: [footing] } : {}),
          }
        : { slot: "charge", frames: { startup: "4f", active: "5f", recovery: "20f" }, ...strike(begun, 9) };
      return {
        kit: giveMove(charged, isRunner(begun) ? "Great leap" : "Great toll", "Brace charge", more),
        presses: [[id, 0, 45]],
      };
    },
  },
  {
    id: "chain",
    words: "A chain of attacks",
    line: "three in a row, each pressed while the one before goes on",
    stage: giveDuel,
    grow(was) {
      const { kit, id } = giveControl(was, "Strike", ["key:KeyJ", "key:KeyX"], ["pad:2"]);
      const press = (from: number): HandPress => [id, from, from + 4];
      return { kit: start(kit, "chain", id), presses: [press(0), press(14), press(34)] };
    },
  },
  {
    id: "tap-hold",
    words: "Tap and hold",
    line: "a short press does one thing, a long press another, and every press does one of them",
    stage: giveDuel,
    grow(was) {
      const { kit, id } = giveControl(was, "Toll", ["key:KeyK", "key:KeyC"], ["pad:3"]);
      const begun = start(kit, "tap-or-hold", id);
      const frames = (startup: string, recovery: string) => ({ startup, active: "3f", recovery });
      const light = giveMove(begun, "Quick toll", "Toll tap", {
        slot: "toll",
        frames: frames("4f", "10f"),
        ...strike(was, 3),
      });
      return {
        kit: giveMove(light, "Slow toll", "Toll hold", {
          slot: "toll",
          frames: frames("14f", "24f"),
          ...strike(was, 9),
        }),
        presses: [
          [id, 0, 6],
          [id, 40, 64],
        ],
      };
    },
  },
  {
    id: "double",
    words: "A double tap",
    line: "twice within a moment; the single tap is not kept waiting",
    stage: giveRunner,
    grow(was) {
      const { kit, id } = giveControl(was, "Right", ["key:ArrowRight", "key:KeyD"], ["pad:15"]);
      const begun = start(kit, "double", id);
      const more = isRunner(begun) ? { effect: { dash: 18, for: "10f" } } : {};
      return {
        kit: giveMove(begun, "Dash", "Right twice", more),
        presses: [
          [id, 0, 4],
          [id, 9, 14],
        ],
      };
    },
  },
  {
    id: "motion",
    words: "A motion",
    line: "a stick turned down, to the corner and forward, then a press",
    stage: giveDuel,
    grow(was) {
      const { kit, id } = giveControl(was, "Strike", ["key:KeyJ", "key:KeyX"], ["pad:2"]);
      const begun = start(kit, "motion", id);
      const stick = begun.sticks?.[0];
      const frames = { startup: "10f", active: "4f", recovery: "22f" };
      const turned: readonly HandPress[] = stick
        ? [
            [stick.down, 0, 9],
            [stick.right, 5, 16],
          ]
        : [];
      return {
        kit: giveMove(begun, "Rolling toll", "Quarter turn", {
          slot: "motion",
          priority: 3,
          frames,
          ...strike(begun, 7),
        }),
        presses: [...turned, [id, 13, 17]],
      };
    },
  },
  {
    id: "prompt",
    words: "A timed prompt",
    line: "a button is shown, and must be pressed in time",
    stage: giveRopes,
    grow(was) {
      const { kit, id } = giveControl(was, "Catch", ["key:KeyE", "key:KeyF"], ["pad:1"]);
      return { kit: start(kit, "prompt", id), presses: [[id, 108, 112]], isByClock: true };
    },
  },
];
