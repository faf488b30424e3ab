import { packFormat } from "#handover";
import type { Jobs } from "../judging/jobs/jobs";
import { makeFiles } from "../judging/makeFiles";
import { download } from "../storage/files";
import type { KitDocument } from "../storage/records";

/** Saves a kit with everything beside it as one file, made in a worker if it is large; rejects if that fails. */
export async function savePack(jobs: Pick<Jobs, "ask">, document: KitDocument): Promise<void> {
  for (const file of await makeFiles(jobs, packFormat, document)) download(file);
}
