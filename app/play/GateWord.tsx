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
  path: readonly (string | number)[];
  suggested: string;
}) {
  const workbench = useWorkbench();
  const gates = kit.gates ?? [];
  const isNew = !gates.some(gate => gate.name.toLowerCase() === suggested.toLowerCase());
  const choose = (chosen: string) =>
    workbench.editKit(label, now => {
      if (chosen === NONE) return deleteAt(now, path);
      if (chosen !== NEW) return writeAt(now, path, chosen);
      const { id, gates: all } = findGate(now, suggested);
      return writeAt({ ...now, gates: all }, path, id);
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
