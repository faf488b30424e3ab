import { BOUNDS } from "../formats/bounds";
import { fault, type Issue, type PathStep, type Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { takeSchema, type Take } from "./takeSchema";

/** The take format and its newest version. */
export const TAKE_FORMAT: DocumentFormat<Take> = {
  format: "moss-tap/take",
  version: 1,
  schema: takeSchema,
  bulk: ["lanes", "gates", "speed"],
  forward: {},
};

function checkOrder(
  lane: readonly (readonly [number, number])[],
  path: readonly PathStep[],
  issues: Issue[],
): void {
  for (let k = 1; k < lane.length; k++) {
    if (lane[k]![0] >= lane[k - 1]![0]) continue;
    issues.push(fault("order", [...path, k, 0], { found: lane[k]![0], before: lane[k - 1]![0] }));
    return;
  }
}

/**
 * Parses an unknown value as a take: its shape, lanes that never go back in time, a length within bounds.
 * Returns every fault with its path, such as `lanes.leap[3][0]`. A take need not fit any kit: lanes of unknown
 * controls are kept, and ignored when it is run.
 */
export function parseTake(input: unknown): Result<Take> {
  const parsed = parseDocument(TAKE_FORMAT, input);
  if (!parsed.ok) return parsed;
  const take = parsed.value;
  const issues: Issue[] = [];
  if (take.frames > BOUNDS.frames)
    issues.push(fault("too-long-take", ["frames"], { frames: take.frames, limit: BOUNDS.frames }));
  for (const [id, lane] of Object.entries(take.lanes)) checkOrder(lane, ["lanes", id], issues);
  checkOrder(take.gaps ?? [], ["gaps"], issues);
  for (const [id, lane] of Object.entries(take.gates ?? {})) checkOrder(lane, ["gates", id], issues);
  checkOrder(take.speed ?? [], ["speed"], issues);
  return issues.length === 0 ? parsed : { ok: false, issues };
}
