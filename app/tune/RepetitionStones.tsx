import { noStep } from "../ui/noStep";
import { NumberStone } from "../ui/NumberStone";

/** The number of plays of each take in a study. */
export function PlaysStone(props: { value: number; most: number; onChange: (count: number) => void }) {
  return <NumberStone label="plays a take" {...props} beginStep={() => noStep()} least={1} isWhole />;
}

/** The seed of the first play. */
export function SeedStone(props: { value: number; onChange: (seed: number) => void }) {
  return (
    <NumberStone label="seed" {...props} beginStep={() => noStep()} least={0} most={1_000_000} isWhole />
  );
}
