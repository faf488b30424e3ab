import { writeAt, type Kit } from "#core";
import { stageOf } from "#stage";
import { NumberStone } from "../../../ui/NumberStone";
import { useDesk } from "../../../document/context";

/** How easy the ropes are, as one number, and the seed that draws their order. */
export function RopesEase({ kit }: { kit: Kit }) {
  const { workbench } = useDesk();
  const stage = stageOf(kit);
  if (stage?.kind !== "ropes") return null;
  const set = (field: string) => (value: number) =>
    workbench.editKit(`${field} ${value}`, now => writeAt(now, ["stage", field], value));
  return (
    <p className="text-sm leading-loose" data-testid="ropes-ease">
      Every window is{" "}
      <NumberStone
        label="ease"
        value={stage.ease ?? 1}
        least={0.1}
        most={10}
        onChange={set("ease")}
        beginStep={workbench.beginStep}
      />{" "}
      times as long as written; ropes are drawn by seed{" "}
      <NumberStone
        label="seed"
        value={stage.seed}
        least={0}
        isWhole
        onChange={set("seed")}
        beginStep={workbench.beginStep}
      />
      .
    </p>
  );
}
