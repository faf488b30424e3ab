import type { MoveProgram } from "../program/program";
import { frameAtAge, type TakeClock } from "../time/takeClock";

/**
 * Returns the frame on which a request of a move came due, where its buffer begins: when the move had waited to be sure, on the clock
 * of its memory. A request made again while its input lasts passes that wait over: it comes due on its own frame. `made`: the frame
 * of the request; `frame`: of its end.
 */
export function dueFrame(
  clock: TakeClock,
  { isMemoryReal, deferTicks }: Pick<MoveProgram, "isMemoryReal" | "deferTicks">,
  { made, frame }: { readonly made: number; readonly frame: number },
): number {
  return deferTicks === 0 ? made : Math.min(frame, frameAtAge(clock, isMemoryReal, made, deferTicks));
}
