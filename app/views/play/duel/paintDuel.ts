import { countWords, firstNoteAfter, notes, TICKS } from "#core";
import { JACK_STATES, stageKind } from "#stage";
import type { Palette } from "../../../ui/palette";
import { paintMeters } from "../paintMeters";
import type { Scene } from "../scene";
import { STAGE_FONT } from "../scenery";
import type { StagePicture } from "../stageScreens";

const METER_PX = 120;
/** A timeline longer than this is not looked for. */
const LONGEST_FRAMES = 1200;
const STRIDE = stageKind("duel").trackStride;

const JACK_WORDS: Readonly<Record<(typeof JACK_STATES)[number], string>> = {
  waits: "waits",
  startup: "winds up",
  active: "strikes",
  recovery: "recovers",
  guard: "guards",
  away: "is out of reach",
  reels: "reels",
};

/** How far an arm is raised while it winds up, strikes and comes back; radians from hanging down. */
const ARM: Readonly<Record<string, number>> = {
  startup: 2.6,
  active: 1.35,
  recovery: 0.7,
  guard: 1.9,
  reels: -0.5,
};

interface Figure {
  readonly x: number;
  readonly lean: number;
  readonly arm: number;
  readonly way: 1 | -1;
  readonly colour: string;
  readonly isClockwork: boolean;
}

function paintFigure(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  figure: Figure,
  floor: number,
  size: number,
): void {
  const { x, lean, arm, way, colour } = figure;
  const shoulderX = x + lean * size * 0.4;
  const shoulderY = floor - size * 0.66;
  ctx.fillStyle = colour;
  ctx.beginPath();
  ctx.moveTo(x - size * 0.2, floor);
  ctx.lineTo(shoulderX - size * 0.13, shoulderY);
  ctx.lineTo(shoulderX + size * 0.13, shoulderY);
  ctx.lineTo(x + size * 0.2, floor);
  ctx.fill();
  ctx.beginPath();
  if (figure.isClockwork)
    ctx.rect(shoulderX - size * 0.12, shoulderY - size * 0.26, size * 0.24, size * 0.24);
  else ctx.arc(shoulderX, shoulderY - size * 0.14, size * 0.14, 0, Math.PI * 2);
  ctx.fill();
  const handX = shoulderX + way * Math.sin(arm) * size * 0.36;
  const handY = shoulderY + Math.cos(arm) * size * 0.36;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = size * 0.06;
  ctx.beginPath();
  ctx.moveTo(shoulderX, shoulderY + size * 0.06);
  ctx.lineTo(handX, handY);
  ctx.stroke();
  ctx.fillStyle = palette.bark;
  ctx.save();
  ctx.translate(handX, handY);
  ctx.rotate(-way * arm);
  ctx.fillRect(-size * 0.13, -size * 0.07, size * 0.26, size * 0.14);
  ctx.restore();
}

/** The timeline of the move that runs: its name and part, by the last one performed. */
function fighterNow({ trace, program, kit, frame }: Scene): {
  name: string;
  part: "startup" | "active" | "recovery" | "";
} {
  for (let i = firstNoteAfter(trace, frame) - 1; i >= 0 && frame - trace.frame[i]! < LONGEST_FRAMES; i--) {
    if (trace.kind[i] !== notes.PERFORMED) continue;
    const move = program.moves[trace.subject[i]!]!;
    const whole = move.startupTicks + move.activeTicks + move.recoveryTicks;
    if (whole === 0) continue;
    const age = (frame - trace.frame[i]!) * TICKS;
    const name = kit.moves?.[trace.subject[i]!]?.name ?? "";
    if (age > whole + 6 * TICKS) return { name: "", part: "" };
    if (age < move.startupTicks) return { name, part: "startup" };
    return { name, part: age < move.startupTicks + move.activeTicks ? "active" : "recovery" };
  }
  return { name: "", part: "" };
}

/** Draws the fighter and the clockwork, what each is doing in words, and the counts. */
export function paintDuel({ ctx, palette, scene, width, height, helps }: StagePicture): void {
  const { track, frame } = scene;
  const at = Math.min(frame, Math.floor(track.length / STRIDE) - 1) * STRIDE;
  const read = (k: number) => (at >= 0 ? (track[at + k] ?? 0) : 0);
  const jack = JACK_STATES[read(0)] ?? "waits";
  const flags = read(6);
  const floor = height - 28;
  const size = Math.min(170, height * 0.56);
  ctx.fillStyle = palette.bark;
  ctx.fillRect(0, floor, width, 28);
  ctx.fillStyle = palette.moss;
  ctx.fillRect(0, floor, width, 6);
  const { name, part } = fighterNow(scene);
  const isStruck = (flags & 1) === 1;
  const fighterX = width * 0.4;
  const jackX = width * (jack === "away" ? 0.74 : 0.6);
  paintFigure(
    ctx,
    palette,
    {
      x: fighterX,
      lean: isStruck ? -0.5 : part === "active" ? 0.4 : 0,
      arm: (flags & 2) === 2 ? 1.9 : (ARM[part] ?? 0.25),
      way: 1,
      colour: palette.moss,
      isClockwork: false,
    },
    floor,
    size,
  );
  paintFigure(
    ctx,
    palette,
    {
      x: jackX,
      lean: jack === "reels" ? 0.5 : jack === "active" ? -0.4 : 0,
      arm: ARM[jack] ?? 0.25,
      way: -1,
      colour: palette.soft,
      isClockwork: true,
    },
    floor,
    size,
  );
  ctx.font = STAGE_FONT;
  ctx.textAlign = "center";
  ctx.fillStyle = palette.ink;
  const said = isStruck ? "struck" : name === "" ? "ready" : `${name}${part === "" ? "" : `, ${part}`}`;
  ctx.fillText(said, fighterX, floor - size - 22);
  ctx.fillText(`Jack ${JACK_WORDS[jack]}`, jackX, floor - size - 22);
  if ((flags & 4) === 4) ctx.fillText("· the blow holds ·", width / 2, 26);
  ctx.textAlign = "left";
  const counts = [
    countWords(read(2), "hit"),
    `${read(3)} taken`,
    countWords(read(4), "parry", "parries"),
    countWords(read(5), "whiff"),
  ];
  ctx.fillText(counts.join("   "), 16, 26);
  if (helps.meters) paintMeters(ctx, palette, scene, fighterX, floor - size - 46, METER_PX);
}
