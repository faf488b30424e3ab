// The input code of the sample game, written by hand as a game has it: hop and second hop of Belfry Runner, with a buffer
// and a coyote time of its own. `fault` makes it wrong in a known way.

const BUFFER_FRAMES = 6;
const COYOTE_FRAMES = 5;

/** The known ways to be wrong, and what each means. */
export const FAULTS = {
  "coyote+1": "forgives one frame more after an edge",
  "buffer-2": "remembers a press for two frames less",
  "early-frame": "performs a remembered hop on the frame before it lands",
  double: "performs every third hop again on the next frame",
  deaf: "does not notice every third press",
};

/** Creates the input code. Call it once a frame; it returns the moves to perform, in order. */
export function createOwnInput(fault) {
  const bufferFrames = BUFFER_FRAMES - (fault === "buffer-2" ? 2 : 0);
  const coyoteFrames = COYOTE_FRAMES + (fault === "coyote+1" ? 1 : 0);
  let frame = -1;
  let wasDown = false;
  let pressedAt = -Infinity;
  let footingAt = -Infinity;
  let hasSecond = true;
  let presses = 0;
  let hops = 0;
  let echoes = false;
  return (isDown, { footing, rising, falling }, willLand) => {
    frame++;
    let isPressed = isDown && !wasDown;
    wasDown = isDown;
    if (isPressed && ++presses % 3 === 0 && fault === "deaf") isPressed = false;
    if (isPressed) pressedAt = frame;
    if (footing) {
      footingAt = frame;
      hasSecond = true;
    }
    if (echoes) {
      echoes = false;
      return ["hop"];
    }
    const isEarly = fault === "early-frame" && willLand && pressedAt < frame;
    const isRemembered = frame - pressedAt <= bufferFrames;
    if (isRemembered && (frame - footingAt <= coyoteFrames || isEarly)) {
      pressedAt = footingAt = -Infinity;
      if (isEarly) hasSecond = true;
      echoes = fault === "double" && ++hops % 3 === 0;
      return ["hop"];
    }
    if (isPressed && hasSecond && (rising || falling)) {
      hasSecond = false;
      pressedAt = -Infinity;
      return ["second-hop"];
    }
    return [];
  };
}
