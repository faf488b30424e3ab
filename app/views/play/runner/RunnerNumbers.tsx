import type { Kit } from "#core";
import { ArcList } from "./ArcList";
import { JumpFacts } from "./JumpFacts";

/** What a leap came to, and what the present numbers make of one. */
export function RunnerNumbers({ kit }: { kit: Kit }) {
  return (
    <>
      <ArcList kit={kit} />
      <JumpFacts kit={kit} />
    </>
  );
}
