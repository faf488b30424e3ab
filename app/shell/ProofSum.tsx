import { useProof } from "../document/checksContext";

/** The number of results that hold: "41 of 42 hold". It counts along while takes are judged again. */
export function ProofSum() {
  const asked = useProof(state => state.asked);
  const holds = useProof(state => state.holds);
  const isWorking = useProof(state => state.isWorking);
  if (asked === 0) return <span className="text-soft">nothing is asked yet</span>;
  return (
    <span
      data-testid="proof-sum"
      data-working={isWorking}
      className={holds < asked ? "text-foxglove" : "text-moss"}
    >
      {holds} of {asked} hold
    </span>
  );
}
