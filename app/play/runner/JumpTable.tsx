import { MAX_AIR_FRAMES, type JumpFacts } from "#stage";
import { noStep } from "../../ui/noStep";
import { NumberStone } from "../../ui/NumberStone";
import type { Unit } from "../model/lengthUnits";
import type { JumpFields } from "./useJumpFields";

/** The maximum length of a press shown, in frames. */
const LONGEST_PRESS = 600;

/** One press shown, with its figures. */
export interface ShownPress {
  readonly name: string;
  readonly facts: JumpFacts;
  /** Its editable length, in frames; undefined for a charge, which is released when it leaps. */
  readonly heldFrames: number | undefined;
}

/** The height, the length, the distance and the floatiness of each press shown. */
export function JumpTable({
  presses,
  unit,
  show,
  onHeld,
}: {
  presses: readonly ShownPress[];
  unit: Unit;
  show: JumpFields["show"];
  /** Called with an index and frames while a length is edited, and with the old ones if that is cancelled. */
  onHeld: (press: number, frames: number) => void;
}) {
  const isPx = unit === "px";
  return (
    <table className="w-full font-mono text-xs">
      <thead>
        <tr className="text-left text-soft">
          <td />
          {[`${unit} high`, "air", `${unit} far`, "top"].map(title => (
            <th key={title} scope="col" className="pr-2 font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {presses.map(({ name, facts, heldFrames }, k) => (
          <tr key={name} className="border-t border-line">
            <th scope="row" className="py-0.5 pr-2 text-left font-normal whitespace-nowrap">
              {name}
              {heldFrames !== undefined && (
                <>
                  {" "}
                  <NumberStone
                    label={`frames a ${name} is held`}
                    value={heldFrames}
                    least={1}
                    most={LONGEST_PRESS}
                    isWhole
                    onChange={frames => onHeld(k, frames)}
                    beginStep={() => noStep(() => onHeld(k, heldFrames))}
                  />
                  f
                </>
              )}
            </th>
            {facts.hasLanded ? (
              <>
                <td className="pr-2">{show(facts.height).toFixed(isPx ? 0 : 2)}</td>
                <td className="pr-2">{facts.airFrames}f</td>
                <td className="pr-2">{show(facts.distance).toFixed(isPx ? 0 : 1)}</td>
                <td>{Math.round(facts.floatiness * 100)} %</td>
              </>
            ) : (
              <td colSpan={4}>over {MAX_AIR_FRAMES}f in the air</td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
