import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";
import type { PhasedTraceDocument } from "../../trace/traceSchema";
import { Course } from "./course";
import { stepPatterns } from "./following";
import { stepGates } from "./gates";
import { stepMode } from "./modes";
import { stepMoves } from "./moves";
import { reportPhases } from "./phases";
import { judgePrompts, stepPrompts } from "./prompts";

/**
 * Runs the frame rules as literally as they are written and without any optimisation of the core: complete
 * histories, no sleeping, no skipping. Slow; shares with the core only the parsing of lengths and curves.
 * Returns the events of the trace, with the phases of moves.
 */
export function runReference(kit: Kit, take: Take): PhasedTraceDocument["events"] {
  const course = new Course(kit, take);
  for (course.f = 0; course.f < course.input.frames; course.f++) {
    stepGates(course);
    stepMode(course);
    stepPrompts(course);
    stepPatterns(course);
    judgePrompts(course);
    stepMoves(course);
    reportPhases(course);
  }
  return course.reported as unknown as PhasedTraceDocument["events"];
}
