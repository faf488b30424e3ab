import { NO_PARTS, type ExportFormat, type Handover, type HandoverParts, type OutFile } from "#handover";
import type { Asked, Jobs } from "./jobs/jobs";

/** Takes with more pairs than this together are written in a worker, so that the page stays free. */
const AT_ONCE_PAIRS = 20_000;

/** Takes of more frames than this together are run for a form in a worker, and only when it is asked for. */
const AT_ONCE_FRAMES = 20_000;

/** A take of days is run in one go, which says nothing until it is over. Longer than this none takes. */
export const RUN_MS = 10 * 60_000;

/** Is so little handed over that its files can be made while someone looks? */
export function isSmall({ takes }: Handover): boolean {
  const pairs = takes.flatMap(take => Object.values(take.lanes)).reduce((sum, lane) => sum + lane.length, 0);
  return pairs <= AT_ONCE_PAIRS;
}

/** Is it so short, too, that its takes can be run while someone looks? */
export function isShort(handover: Handover): boolean {
  return isSmall(handover) && handover.takes.reduce((sum, take) => sum + take.frames, 0) <= AT_ONCE_FRAMES;
}

/** Are the files of a form made at once? */
export function isMadeAtOnce(format: ExportFormat, handover: Handover): boolean {
  if (format.isLarge) return false;
  return format.runsTakes ? isShort(handover) : isSmall(handover);
}

/** Asks a worker for the files of one form; `parts` are what it needs besides the kit; `told` hears how many takes of how many were run for it. */
export function askForFiles(
  jobs: Pick<Jobs, "ask">,
  format: ExportFormat,
  { takes, ...handover }: Handover,
  parts: HandoverParts = NO_PARTS,
  told?: (done: number, of: number) => void,
): Asked<"makeFiles"> {
  return jobs.ask({
    job: "makeFiles",
    question: { format: format.id, parts, ...handover },
    takes,
    quietMs: RUN_MS,
    ...(told ? { told: ({ done, of }) => told(done, of) } : {}),
  });
}

/** The files of a form that needs no parts, made at once or in a worker; rejects with what went wrong there. */
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
