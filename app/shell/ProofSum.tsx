import { countWords } from "#core";
import { useProof } from "../document/checksContext";
import { holdColour, holdWords, vacuousWords } from "../ui/checkSum";

/**
 * The number of checks that hold on all of their takes: "5 of 6 checks hold". While takes are judged again it counts their
 * earlier results; results that are not known are no figure.
 */
export function ProofSum() {
  const asked = useProof(state => state.asked);
  const holds = useProof(state => state.holds);
  const vacuous = useProof(state => state.vacuous);
  const isWorking = useProof(state => state.isWorking);
  const unknown = useProof(state => state.unknown);
  if (unknown > 0)
    return (
      <span data-testid="proof-unknown" className={isWorking ? "text-soft" : "text-foxglove"}>
        {isWorking
          ? `judging ${countWords(asked, "check")} …`
          : `${countWords(unknown, "result")} not judged`}
      </span>
    );
  if (asked === 0) return <span className="text-soft">nothing is asked yet</span>;
  return (
    <span
      data-testid="proof-sum"
      data-working={isWorking}
      className={holdColour({ asked, holds, vacuous })}
      title={vacuousWords({ vacuous }) || undefined}
    >
      {holdWords({ asked, holds })}
    </span>
  );
}
