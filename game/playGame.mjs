// The loop of the sample game, without a clock: one call a frame.
import { createBody } from "../public/game/body.mjs";
import { createHands } from "./hands.mjs";
import { createOwnInput } from "./ownInput.mjs";

/**
 * Creates the game. `link` has the `step` of a link or of a runtime. If `asks`, the body performs what the rules return;
 * otherwise it has input code of its own, with a fault if one is named. Returns a function that plays one frame and returns
 * the moves the body performed on it.
 */
export function createGame({ link, asks, seed, fault }) {
  const course = createBody();
  const hands = createHands(seed);
  const ownInput = createOwnInput(fault);
  return () => {
    const gates = course.gates();
    const controls = hands(course.body);
    const did = asks ? [] : ownInput(controls.leap, gates, course.willLand());
    const events = link.step({ controls, gates, did });
    const performed = events.filter(({ kind }) => kind === "performed").map(({ id }) => id);
    const moves = asks ? performed : did;
    course.step(1, moves.at(-1));
    return moves;
  };
}
