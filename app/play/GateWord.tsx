import { deleteAt, writeAt, type Kit } from "#core";
import { findGate } from "../edits/giveStage";
import { ChoiceWord } from "../ui/ChoiceWord";
import { useWorkbench } from "../document/workbenchContext";

const NONE = "";
const NEW = " new";

/** The gate opened by an event of the stage: one of the kit's, none, or a new one with a suggested name. */
export function GateWord({
  kit,
  label,
  value,
  path,
  suggested,
}: {
  kit: Kit;
  label: string;
  value: string | undefined;
  /** The path of the field, or a function that writes the gate; undefined for none. */
  path: readonly (string | number)[] | ((kit: Kit, gate: string | undefined) => Kit);
  suggested: string;
}) {
  const workbench = useWorkbench();
  const gates = kit.gates ?? [];
  const isNew = !gates.some(gate => gate.name.toLowerCase() === suggested.toLowerCase());
  const write = (now: Kit, gate: string | undefined) => {
    if (typeof path === "function") return path(now, gate);
    return gate === undefined ? deleteAt(now, path) : writeAt(now, path, gate);
  };
  const choose = (chosen: string) =>
    workbench.editKit(label, now => {
      if (chosen !== NEW) return write(now, chosen === NONE ? undefined : chosen);
      const { id, gates: all } = findGate(now, suggested);
      return write({ ...now, gates: all }, id);
    });
  return (
    <ChoiceWord
      label={label}
      value={value ?? NONE}
      choices={[
        { value: NONE, label: "no gate" },
        ...gates.map(gate => ({ value: gate.id, label: gate.name })),
        ...(isNew ? [{ value: NEW, label: `a new gate, ${suggested}` }] : []),
      ]}
      onChoose={choose}
    />
  );
}
