import { dequal } from "dequal";
import type { GoalAsked } from "../../document/studySettings";

/**
 * Returns whether two questions of a goal are the same, apart from the kit: its present values, and with them the values
 * tried, may have changed since the first was answered.
 */
export function isSameGoal(before: GoalAsked, now: GoalAsked): boolean {
  const asked = ({ one, two, rows: _rows, ...rest }: GoalAsked) => ({ ...rest, one: one.key, two: two?.key });
  return dequal(asked(before), asked(now));
}
