import { fault } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { Gate } from "../kit/schema";
import type { GateProgram } from "../run/program";
import { parseFrames } from "../time/duration";
import { TICKS } from "../time/clock";

const SPENT_FOR = "133ms";

function compileSources(gate: Gate, g: number, names: Names): Pick<GateProgram, "derive" | "of"> {
  const given = (["all", "any", "none", "while"] as const).filter(key => gate[key] !== undefined);
  if (given.length > 1)
    names.issues.push(fault("gate-sources", ["gates", g], { found: given.join(" and ") }));
  const derive = given[0];
  if (derive === undefined) return { derive: "plain", of: [] };
  if (derive === "while") return { derive, of: [names.pattern(gate.while!, ["gates", g, "while"])] };
  const listed = names.kit.gates?.length ?? 0;
  const of = gate[derive]!.map((id, k) => {
    const place = names.gate(id, ["gates", g, derive, k]);
    if (place >= g && place < listed) names.issues.push(fault("gate-above", ["gates", g, derive, k], { id }));
    return place;
  });
  return { derive, of };
}

/** Listed gates in kit order, then the busy gates that slots imply. */
export function compileGates(names: Names): GateProgram[] {
  const listed = (names.kit.gates ?? []).map((gate, g): GateProgram => ({
    id: gate.id,
    isListed: true,
    spentForTicks: names.atLeast(gate.spentFor ?? SPENT_FOR, 0),
    ...compileSources(gate, g, names),
  }));
  const implied = names.gateIds.slice(listed.length).map((id): GateProgram => ({
    id,
    isListed: false,
    spentForTicks: (parseFrames(SPENT_FOR, names.kit.rate, "atLeast") ?? 0) * TICKS,
    derive: "plain",
    of: [],
  }));
  return [...listed, ...implied];
}
