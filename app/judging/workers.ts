import { createOwnerContext } from "../ui/ownerContext";
import type { Jobs } from "./jobs/jobs";

/** The workers of a page. */
export interface Workers {
  readonly jobs: Jobs;
  /** Yields between two slices of long work. */
  readonly yieldToUi: () => Promise<void>;
}

export const [WorkersContext, useWorkers] = createOwnerContext<Workers>("the workers");
