import { writeAt, type Kit } from "#core";
import { stageOf } from "#stage";
import { editKit } from "../../store/workbench";
import { TextStone } from "../../ui/TextStone";

/** How easy the ropes are, as one number, and the seed that draws their order. */
export function RopesEase({ kit }: { kit: Kit }) {
  const stage = stageOf(kit);
  if (stage?.kind !== "ropes") return null;
  const set = (field: string) => (value: string) =>
    editKit(`${field} ${value}`, now => writeAt(now, ["stage", field], Number(value)));
  return (
    <p className="text-sm leading-loose" data-testid="ropes-ease">
      Every window is{" "}
      <TextStone label="ease" value={String(stage.ease ?? 1)} isNumber onChange={set("ease")} /> times as long
      as written; ropes are drawn by seed{" "}
      <TextStone label="seed" value={String(stage.seed)} isNumber onChange={set("seed")} />.
    </p>
  );
}
