// A small body that runs over beams, with gaps between them: the body of a sample game. Lengths are in tiles, times in frames
// of 60 a second. Nothing here depends on Moss Tap.

const SPEED = 0.12;
const GRAVITY = 0.018;
/** The upward speed of each move, in tiles a frame. */
const LEAPS = { hop: 0.3, "second-hop": 0.25 };
const BEAMS = [
  { from: 0, to: 9, height: 0 },
  { from: 12, to: 20, height: 0.5 },
  { from: 23, to: 29, height: 0 },
  { from: 33, to: 40, height: 0.5 },
  { from: 43, to: 51, height: 0 },
];
/** The course begins anew here, in the middle of the gap after the last beam. */
const LENGTH = 54;
const ABYSS = -6;

/** Returns the beam below a place, undefined over a gap. */
export const beamAt = x => BEAMS.find(({ from, to }) => x >= from && x <= to);

/** Creates a body at the beginning of the course. */
export function createBody() {
  const body = { x: 1, y: 0, rise: 0, isOnBeam: true };
  return {
    beams: BEAMS,
    length: LENGTH,
    body,
    /** The gates that the rules of Belfry Runner need, as they are before the next frame. */
    gates: () => ({
      footing: body.isOnBeam,
      rising: !body.isOnBeam && body.rise > 0,
      falling: !body.isOnBeam && body.rise <= 0,
    }),
    /** Returns whether the body will land on a beam after this frame, unless it leaps. */
    willLand() {
      const beam = beamAt(body.x);
      return (
        !body.isOnBeam &&
        beam !== undefined &&
        body.rise <= 0 &&
        body.y >= beam.height &&
        body.y + body.rise - GRAVITY <= beam.height
      );
    },
    /** Moves the body by one frame. `way` is −1, 0 or 1, `move` the move it performs, if any. */
    step(way, move) {
      if (move !== undefined && Object.hasOwn(LEAPS, move)) {
        body.rise = LEAPS[move];
        body.isOnBeam = false;
      }
      body.x += way * SPEED;
      if (body.x > LENGTH || body.x < 0) Object.assign(body, { x: 1, y: 0, rise: 0, isOnBeam: true });
      const beam = beamAt(body.x);
      if (body.isOnBeam && beam === undefined) body.isOnBeam = false;
      if (body.isOnBeam) {
        body.y = beam.height;
        return;
      }
      if (move === undefined) body.rise -= GRAVITY;
      const before = body.y;
      body.y += body.rise;
      if (beam !== undefined && body.rise <= 0 && before >= beam.height - 1e-9 && body.y <= beam.height)
        Object.assign(body, { y: beam.height, rise: 0, isOnBeam: true });
      if (body.y < ABYSS) {
        const last = BEAMS.findLast(({ from }) => from <= body.x) ?? BEAMS[0];
        Object.assign(body, { x: last.from + 1, y: last.height, rise: 0, isOnBeam: true });
      }
    },
  };
}
