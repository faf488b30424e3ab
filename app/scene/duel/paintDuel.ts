import { countWords, firstNoteAfter, notes, PARTS } from "#core";
import { DUEL_DEFAULTS, JACK_STATES, stageKind } from "#stage";
import type { Palette } from "../../ui/palette";
import { paintBell, paintTower } from "../backdrop";
import { paintMeters } from "../paintMeters";
import { paintRinger } from "../paintRinger";
import { paintJack } from "./paintJack";
import type { Scene } from "../scene";
import { STAGE_FONT } from "../scenery";
import type { StagePicture } from "../stagePainters";

const METER_PX = 120;
/** The maximum length of a timeline to look back for. */
const LONGEST_FRAMES = 1200;
const STRIDE = stageKind("duel").trackStride;

/** The length of a tile, as a share of the size of the bodies. */
const TILE_SHARE = 0.4;

type JackState = (typeof JACK_STATES)[number];

/** The smallest bodies, the room for the words above them, and the highest baseline of words, in px. */
const MIN_SIZE = 48;
const WORDS_ROOM = 36;
const FIRST_LINE = 14;

/** The floor, the size of the bodies, and the positions of both, in px. */
interface DuelPlace {
  readonly floor: number;
  readonly size: number;
  readonly fighterX: number;
  readonly jackX: number;
}

const JACK_WORDS: Readonly<Record<JackState, string>> = {
  waits: "waits",
  startup: "winds up",
  active: "strikes",
  recovery: "recovers",
  guard: "guards",
  away: "is out of reach",
  reels: "is stunned",
};

/** The angle of the opponent's arm in each action, in radians from hanging down. */
const JACK_ARM: Readonly<Partial<Record<JackState, number>>> = {
  startup: 3.5,
  active: 1.45,
  recovery: 0.8,
  guard: 1.2,
  reels: -0.9,
};

/** The angles of the fighter's arms, leading one first, and its lean, by the part of its move. */
const STANCES: Readonly<
  Record<Part | "ready" | "struck" | "parry", { arms: readonly [number, number]; lean: number }>
> = {
  ready: { arms: [0.9, 0.5], lean: 0.1 },
  none: { arms: [0.9, 0.5], lean: 0.1 },
  startup: { arms: [-2.3, -1.7], lean: -0.45 },
  active: { arms: [1.7, 1.2], lean: 0.95 },
  recovery: { arms: [0.7, 0.3], lean: 0.5 },
  struck: { arms: [-0.9, -1.3], lean: -0.9 },
  parry: { arms: [2.2, 1.9], lean: -0.15 },
};

type Part = (typeof PARTS)[number];

/** Returns the move whose timeline runs and its part, as noted by the core, including hit stops. */
function fighterNow({ trace, kit, frame }: Scene): { name: string; part: Part } {
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && frame - trace.frame[i]! < LONGEST_FRAMES; i--) {
    if (trace.kind[i] !== notes.part.code) continue;
    const part = PARTS[notes.part.part(trace, i)]!;
    return { name: part === "none" ? "" : (kit.moves?.[trace.subject[i]!]?.name ?? ""), part };
  }
  return { name: "", part: "none" };
}

/** Paints the hammer in the fighter's hand, and its sweep while it can land. */
function paintHammer(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  hand: { x: number; y: number },
  angle: number,
  size: number,
  part: Part,
): void {
  if (part === "active") {
    ctx.save();
    ctx.globalAlpha = 0.5;
    ctx.fillStyle = palette.fern;
    ctx.beginPath();
    ctx.arc(hand.x - size * 0.28, hand.y + size * 0.02, size * 0.52, -1.5, 0.35);
    ctx.arc(hand.x - size * 0.34, hand.y + size * 0.1, size * 0.36, 0.35, -1.5, true);
    ctx.fill();
    ctx.restore();
  }
  ctx.save();
  ctx.translate(hand.x, hand.y);
  ctx.rotate(-angle + Math.PI);
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = size * 0.035;
  ctx.beginPath();
  ctx.moveTo(0, size * 0.08);
  ctx.lineTo(0, -size * 0.26);
  ctx.stroke();
  ctx.fillStyle = palette.lichen;
  ctx.beginPath();
  ctx.roundRect(-size * 0.11, -size * 0.34, size * 0.22, size * 0.13, size * 0.03);
  ctx.fill();
  ctx.fillStyle = palette.bark;
  ctx.fillRect(-size * 0.11, -size * 0.3, size * 0.22, size * 0.03);
  ctx.restore();
}

/** Paints short rays at the point of impact. */
function paintBlow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  size: number,
): void {
  ctx.strokeStyle = palette.foxglove;
  ctx.lineWidth = 3;
  ctx.beginPath();
  for (let k = 0; k < 8; k++) {
    const angle = (k * Math.PI) / 4 + 0.3;
    ctx.moveTo(x + Math.cos(angle) * size * 0.1, y + Math.sin(angle) * size * 0.1);
    ctx.lineTo(x + Math.cos(angle) * size * 0.2, y + Math.sin(angle) * size * 0.2);
  }
  ctx.stroke();
}

/** Paints the floor: boards with moss along the edge, in three tones. */
function paintFloor(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  width: number,
  height: number,
  floor: number,
): void {
  ctx.fillStyle = palette.bark;
  ctx.fillRect(0, floor, width, height - floor);
  ctx.fillStyle = palette.moss;
  ctx.fillRect(0, floor, width, 5);
  ctx.globalAlpha = 0.2;
  ctx.fillStyle = palette.ink;
  for (let x = 40; x < width; x += 90) ctx.fillRect(x, floor + 5, 1.5, height - floor);
  ctx.fillRect(0, floor + 14, width, 1.5);
  ctx.globalAlpha = 1;
}

function paintShadow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  floor: number,
  size: number,
): void {
  ctx.globalAlpha = 0.25;
  ctx.fillStyle = palette.ink;
  ctx.beginPath();
  ctx.ellipse(x, floor + 3, size * 0.28, 5, 0, 0, Math.PI * 2);
  ctx.fill();
  ctx.globalAlpha = 1;
}

/** Paints the mechanical opponent in its state. */
function paintOpponent(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  jack: JackState,
  frame: number,
  place: DuelPlace,
): void {
  paintJack(ctx, palette, {
    x: place.jackX,
    floor: place.floor,
    size: place.size,
    lean: jack === "reels" ? 0.9 : jack === "active" ? -0.6 : jack === "startup" ? 0.3 : 0,
    arm: JACK_ARM[jack] ?? 0.2,
    isGuarding: jack === "guard",
    isReeling: jack === "reels",
    turn: jack === "waits" ? frame / 40 : frame / 14,
  });
}

/** Paints the fighter with its hammer, in a part of its move, struck or parrying. */
function paintFighter(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  part: ReturnType<typeof fighterNow>["part"],
  isStruck: boolean,
  isParrying: boolean,
  place: DuelPlace,
): void {
  const { size } = place;
  const stance = STANCES[isStruck ? "struck" : isParrying ? "parry" : part];
  const hand = paintRinger(ctx, palette, {
    x: place.fighterX,
    y: place.floor,
    height: size * 0.98,
    facing: 1,
    lean: stance.lean,
    stride: part === "active" ? 1.2 : part === "startup" ? -0.7 : 0.35,
    arms: stance.arms,
    wind: part === "active" ? 1 : isStruck ? -0.6 : 0.2,
    rise: part === "startup" ? 0.6 : 0,
  });
  paintHammer(ctx, palette, hand, stance.arms[0] + 0.5, size, isStruck ? "none" : part);
}

/** Paints the counts of hits, parries and misses from a row of the track. */
function paintCounts(ctx: CanvasRenderingContext2D, read: (field: number) => number): void {
  const counts = [
    countWords(read(2), "hit"),
    `${read(3)} taken`,
    countWords(read(4), "parry", "parries"),
    countWords(read(5), "miss", "misses"),
  ];
  ctx.textAlign = "left";
  ctx.fillText(counts.join("   "), 16, 26);
}

/** Returns the floor, the size of the bodies, and the baseline of the words above them, in a picture of a height, all in px. */
export function measureDuel(height: number): { floor: number; size: number; wordsY: number } {
  const floor = height - 28;
  const size = Math.min(190, height * 0.6, Math.max(MIN_SIZE, floor - WORDS_ROOM));
  return { floor, size, wordsY: Math.max(FIRST_LINE, floor - size - 22) };
}

/**
 * Returns where the opponent is, in px from the left, at a distance in tiles; at the stage's usual distance in the same place
 * whatever its tiles measure, and never outside the picture.
 */
export function placeJack(jack: JackState, apart: number, width: number, size: number): number {
  const near = width * (jack === "away" ? 0.76 : 0.6) - (jack === "active" ? size * 0.12 : 0);
  const moved = (apart - DUEL_DEFAULTS.apart) * size * TILE_SHARE;
  return Math.max(width * 0.4, Math.min(near + moved, width - size * 0.3));
}

/** Paints the distance of both along the floor, once it is no longer the usual one. */
function paintDistance(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  apart: number,
  { fighterX, jackX, floor }: DuelPlace,
): void {
  if (Math.abs(apart - DUEL_DEFAULTS.apart) < 0.005) return;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const x of [fighterX, jackX]) {
    ctx.moveTo(x, floor - 9);
    ctx.lineTo(x, floor - 3);
  }
  ctx.moveTo(fighterX, floor - 6);
  ctx.lineTo(jackX, floor - 6);
  ctx.stroke();
  ctx.fillText(`${Math.round(apart * 100) / 100} tiles`, (fighterX + jackX) / 2, floor - 14);
}

/** Paints the fighter and the opponent, their actions in words, and the counts. */
export function paintDuel({ ctx, palette, scene, width, height, helps }: StagePicture): void {
  const { track, frame } = scene;
  const at = Math.min(frame, Math.floor(track.length / STRIDE) - 1) * STRIDE;
  const read = (field: number) => (at >= 0 ? (track[at + field] ?? 0) : 0);
  const jack = JACK_STATES[read(0)] ?? "waits";
  const flags = read(6);
  const isStruck = (flags & 1) === 1;
  const isStill = (flags & 4) === 4;
  const { name, part } = fighterNow(scene);
  const { floor, size, wordsY } = measureDuel(height);
  const fighterX = width * 0.4 + (part === "active" ? size * 0.16 : 0);
  const jackX = placeJack(jack, read(7), width, size);
  const place = { floor, size, fighterX, jackX };
  const sway = isStill ? 0.06 : Math.sin(frame / 50) * 0.02;
  paintTower(ctx, palette, width, height);
  paintBell(ctx, palette, width * 0.82, 12, Math.min(150, height * 0.4), sway);
  paintFloor(ctx, palette, width, height, floor);
  paintShadow(ctx, palette, fighterX, floor, size);
  paintShadow(ctx, palette, jackX, floor, size);
  paintOpponent(ctx, palette, jack, frame, place);
  paintFighter(ctx, palette, part, isStruck, (flags & 2) === 2, place);
  const blowX = isStruck ? fighterX + size * 0.15 : jackX - size * 0.24;
  if (isStill) paintBlow(ctx, palette, blowX, floor - size * 0.52, size);
  ctx.font = STAGE_FONT;
  ctx.textAlign = "center";
  ctx.fillStyle = palette.ink;
  const label = isStruck ? "struck" : name === "" ? "ready" : `${name}, ${part}`;
  ctx.fillText(label, fighterX, wordsY);
  ctx.fillText(`opponent ${JACK_WORDS[jack]}`, jackX, wordsY);
  paintDistance(ctx, palette, read(7), place);
  if (isStill) ctx.fillText("· the blow holds ·", width / 2, 26);
  paintCounts(ctx, read);
  if (helps.meters) paintMeters(ctx, palette, scene, fighterX, floor - size - 46, METER_PX);
}
