import type { Kit } from "#core";
import { ArcList } from "./ArcList";
import { JumpFacts } from "./JumpFacts";

/** The measures of the last leap, and the figures of a jump. */
export function RunnerNumbers({ kit }: { kit: Kit }) {
  return (
    <>
      <ArcList kit={kit} />
      <JumpFacts kit={kit} />
    </>
  );
}
