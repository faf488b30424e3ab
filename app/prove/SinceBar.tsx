import { useMemo } from "react";
import { heldAtPoint, heldIn, pointOf, type HeldAt } from "../document/proofPoint";
import { useProof, useProofStore } from "../document/checksContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { Button } from "../ui/Button";
import type { Grid } from "./model/cells";

/** The time with which results are compared: before the last edit, or a point that the designer has set. */
export type Since = "edit" | "point";

/** Returns the results at the time with which the present ones are compared; undefined if there are none. */
export function useHeldAt(since: Since): HeldAt | undefined {
  const beforeStep = useProof(state => state.beforeStep);
  const point = useDocument(state => state.settings.proofPoint);
  return useMemo(() => {
    if (since === "point") return point && heldAtPoint(point);
    return beforeStep && heldIn(beforeStep);
  }, [since, beforeStep, point]);
}

/** Formats the time of a point: "14:05", with the date if it is not today's. */
function formatTime(at: number): string {
  const [time, now] = [new Date(at), new Date()];
  const hours = time.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return time.toDateString() === now.toDateString() ? hours : `${time.toLocaleDateString()}, ${hours}`;
}

const CHOSEN = "aria-pressed:bg-sand aria-pressed:font-semibold";

/** How results changed since a time that can be chosen, and whether only those takes are listed. */
export function SinceBar({
  since,
  turns: { held, broke },
  isOnly,
  onSince,
  onOnly,
}: {
  since: Since;
  turns: Grid["turns"];
  isOnly: boolean;
  onSince: (since: Since) => void;
  onOnly: (isOnly: boolean) => void;
}) {
  const workbench = useWorkbench();
  const proof = useProofStore();
  const at = useDocument(state => state.settings.proofPoint?.at);
  const isWorking = useProof(state => state.isWorking);
  const setPoint = () => {
    const proofPoint = pointOf(proof.getState().found, Date.now());
    workbench.updateKitSettings(settings => ({ ...settings, proofPoint }));
    onSince("point");
  };
  return (
    <div
      role="group"
      aria-label="Changes of results"
      className="flex flex-wrap items-center gap-x-2 px-5 pb-1 text-sm"
    >
      <span className="text-soft">Since</span>
      <Button look="quiet" className={CHOSEN} aria-pressed={since === "edit"} onClick={() => onSince("edit")}>
        the last edit
      </Button>
      {at !== undefined && (
        <Button
          look="quiet"
          className={CHOSEN}
          aria-pressed={since === "point"}
          onClick={() => onSince("point")}
        >
          {formatTime(at)}
        </Button>
      )}
      <span data-testid="turns" className="min-w-44" data-working={isWorking}>
        {held + broke === 0 ? (
          <span className="text-soft">no result changed</span>
        ) : (
          <>
            <b className="font-mono text-moss">+{held}</b> now hold,{" "}
            <b className={`font-mono ${broke > 0 ? "text-foxglove" : "text-soft"}`}>−{broke}</b> broke
          </>
        )}
      </span>
      <Button
        look="quiet"
        aria-pressed={isOnly}
        disabled={held + broke === 0 && !isOnly}
        onClick={() => onOnly(!isOnly)}
      >
        Only changed takes
      </Button>
      <Button look="quiet" disabled={isWorking} onClick={setPoint}>
        {at === undefined ? "Compare with now from here on" : "Compare with now"}
      </Button>
    </div>
  );
}
