import type { Take } from "#core";
import {
  NO_PARTS,
  type ExportFormat,
  type Handover,
  type HandoverParts,
  type MakingStep,
  type OnProgress,
  type OutFile,
} from "#handover";
import type { JobHandle, Jobs } from "./jobs/jobs";
import { isLargeKit } from "./kitSize";

/** Takes with more pairs than this in total are written in a worker, so that the page stays responsive. */
const AT_ONCE_PAIRS = 20_000;

/** Takes with more frames than this in total are run for a form in a worker, and only on request. */
const AT_ONCE_FRAMES = 20_000;

/** The time without a sign of life after which a worker counts as dead: progress is reported after each take and number. */
const QUIET_MS = 60_000;
/** The slowest run of a take that is waited for, in frames per ms. */
const SLOWEST_PER_MS = 20;

/** Returns for how long a worker may be silent that runs these takes one by one, in ms. */
export function quietFor(takes: readonly Pick<Take, "frames">[]): number {
  return QUIET_MS + Math.max(0, ...takes.map(({ frames }) => frames)) / SLOWEST_PER_MS;
}

/** Returns whether a handover is small enough to make its files synchronously. */
export function isSmall({ kit, takes }: Handover): boolean {
  if (isLargeKit(kit)) return false;
  const pairs = takes.flatMap(take => Object.values(take.lanes)).reduce((sum, lane) => sum + lane.length, 0);
  return pairs <= AT_ONCE_PAIRS;
}

/** Returns whether its takes are also short enough to be run synchronously. */
export function isShort(handover: Handover): boolean {
  return isSmall(handover) && handover.takes.reduce((sum, take) => sum + take.frames, 0) <= AT_ONCE_FRAMES;
}

/** Returns whether the files of a form are made at once. */
export function isMadeAtOnce(format: ExportFormat, handover: Handover): boolean {
  if (format.uses.includes("all") || format.uses.includes("boundaries")) return false;
  return format.uses.includes("runs") ? isShort(handover) : isSmall(handover);
}

/**
 * Requests the files of one form from a worker; `parts` are its inputs besides the kit; `onProgress` receives
 * the takes run, or the numbers searched.
 */
export function askForFiles(
  jobs: Pick<Jobs, "ask">,
  format: ExportFormat,
  { takes, ...handover }: Handover,
  parts: HandoverParts = NO_PARTS,
  onProgress?: OnProgress,
): JobHandle<"makeFiles"> {
  return jobs.ask({
    job: "makeFiles",
    question: { format: format.id, parts, ...handover },
    takes,
    quietMs: quietFor(takes),
    ...(onProgress
      ? { onProgress: ({ done, of, partial }) => onProgress(done, of, partial as MakingStep) }
      : {}),
  });
}

/** Returns the files of a form that needs no parts, made at once or in a worker; rejects if that fails. */
export async function makeFiles(
  jobs: Pick<Jobs, "ask">,
  format: ExportFormat,
  handover: Handover,
): Promise<readonly OutFile[]> {
  if (isMadeAtOnce(format, handover)) return format.files(handover, NO_PARTS);
  const outcome = await askForFiles(jobs, format, handover).outcome;
  if (outcome.state === "done") return outcome.value;
  throw new Error(outcome.state === "failed" ? outcome.reason : "it was called off");
}
