import { deleteAt, writeAt, type Kit } from "#core";
import type { RunnerDocument } from "#stage";
import { useWorkbench } from "../../document/workbenchContext";
import { Button } from "../../ui/Button";
import { GateWord } from "../GateWord";
import type { Unit } from "../model/lengthUnits";
import type { JumpFields } from "./useJumpFields";
import { KeptMarks } from "../../ui/KeptMarks";

const SHARE = { least: 0, most: 1 } as const;
const HANG = { within: 4, share: 0.5 };
const SLIDE_MOST = 4;
const CORNER_PX = 6;

/** Returns a kit in which another gate lets the body slide, or none. */
function writeSlide(kit: Kit, gate: string | undefined): Kit {
  const { slide } = (kit.stage as RunnerDocument).fall;
  if (gate === undefined) return deleteAt(kit, ["stage", "fall", "slide"]);
  return writeAt(kit, ["stage", "fall", "slide"], { gate, most: slide?.most ?? SLIDE_MOST });
}

/** How far a rising body is moved aside at the edge of a beam, as a sentence; or the offer of it. */
function CornerWords({ corner, number }: { corner: number | undefined; number: JumpFields["number"] }) {
  const workbench = useWorkbench();
  const path = ["stage", "fall", "corner"];
  if (corner === undefined)
    return (
      <Button
        look="quiet"
        className="-ml-2"
        onClick={() => workbench.editKit("past corners", now => writeAt(now, path, CORNER_PX))}
      >
        … slipping past the corner of a beam
      </Button>
    );
  return (
    <>
      Rising, it slips past the corner of a beam by at most{" "}
      {number("pixels past a corner", corner, path, { least: 0, most: 256 })} px{" "}
      <Button
        look="quiet"
        aria-label="Remove slipping past corners"
        onClick={() => workbench.editKit("removed slipping past corners", now => deleteAt(now, path))}
      >
        ×
      </Button>
      .{" "}
    </>
  );
}

/**
 * The optional rules of rising and falling as a sentence: hanging around the top, slipping past corners, and sliding while a
 * gate is open.
 */
export function FallWords({
  kit,
  fall: { hang, corner, slide },
  unit,
  fields: { far, number },
}: {
  kit: Kit;
  fall: RunnerDocument["fall"];
  unit: Unit;
  fields: JumpFields;
}) {
  const workbench = useWorkbench();
  const path = ["stage", "fall", "hang"];
  return (
    <p className="leading-loose" data-testid="fall-words">
      <KeptMarks>
        {hang ? (
          <>
            Around the top, slower than {far("hang below", hang.within, [...path, "within"])} {unit}/s,{" "}
            {number("gravity left around the top", hang.share, [...path, "share"], SHARE)} of its gravity is
            left{" "}
            <Button
              look="quiet"
              aria-label="Remove the hang around the top"
              onClick={() => workbench.editKit("removed the hang", now => deleteAt(now, path))}
            >
              ×
            </Button>
            .{" "}
          </>
        ) : (
          <Button
            look="quiet"
            className="-ml-2"
            onClick={() => workbench.editKit("a hang around the top", now => writeAt(now, path, HANG))}
          >
            … hanging around the top
          </Button>
        )}
        <CornerWords corner={corner} number={number} /> While{" "}
        <GateWord kit={kit} label="gate of sliding" value={slide?.gate} path={writeSlide} suggested="Wall" />{" "}
        is open it falls{" "}
        {slide ? (
          <>
            at most at {far("greatest fall while sliding", slide.most, ["stage", "fall", "slide", "most"])}.
          </>
        ) : (
          "no slower."
        )}
      </KeptMarks>
    </p>
  );
}
