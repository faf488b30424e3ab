import { writeAt, type Kit } from "#core";
import type { RunnerDocument } from "#stage";
import { findGate } from "../../edits/giveStage";
import { AIR, BEAM, freshLetter, resizeLevel, START, THIN_BEAM, type Tile } from "../../edits/levelEdits";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { useWorkbench } from "../../document/workbenchContext";

const NEW_PLACE = "new";

const SIZES = [
  { words: "wider", columns: 4, rows: 0 },
  { words: "narrower", columns: -4, rows: 0 },
  { words: "higher", columns: 0, rows: 1 },
  { words: "lower", columns: 0, rows: -1 },
] as const;

/** The bar of the level editor: the brush, the size, and Done. */
export function LevelBar({
  kit,
  stage,
  brush,
  onBrush,
  onDone,
}: {
  kit: Kit;
  stage: RunnerDocument;
  brush: Tile;
  onBrush: (tile: Tile) => void;
  onDone: () => void;
}) {
  const workbench = useWorkbench();
  const zones = stage.zones ?? {};
  const nameOf = (gate: string) => kit.gates?.find(item => item.id === gate)?.name ?? gate;
  const letter = freshLetter(zones);
  const choose = (chosen: string) => {
    if (chosen !== NEW_PLACE) return onBrush(chosen);
    if (letter === undefined) return;
    workbench.editKit(`place ${letter}`, now => {
      const { id, gates } = findGate(now, `Place ${letter}`);
      return writeAt({ ...now, gates }, ["stage", "zones"], { ...zones, [letter]: id });
    });
    onBrush(letter);
  };
  const resize = (columns: number, rows: number) =>
    workbench.editKit("size of the level", now =>
      writeAt(now, ["stage", "level"], resizeLevel(stage.level, columns, rows)),
    );
  return (
    <div className="flex flex-wrap items-center gap-1 text-sm" role="group" aria-label="Drawing the level">
      <Button look="strong" onClick={onDone}>
        Done drawing
      </Button>
      <span className="px-2">
        Drag over the tiles, or arrows and Space: draws{" "}
        <ChoiceWord
          label="What is drawn"
          value={brush}
          choices={[
            { value: BEAM, label: "a beam" },
            { value: THIN_BEAM, label: "a thin beam", hint: "holds from above, and lets pass from below" },
            { value: AIR, label: "air", hint: "takes away what is there" },
            { value: START, label: "the start", hint: "where the body is at first" },
            ...Object.entries(zones).map(([tile, gate]) => ({
              value: tile,
              label: `the place ${tile}`,
              hint: `opens ${nameOf(gate)}`,
            })),
            ...(letter === undefined
              ? []
              : [{ value: NEW_PLACE, label: "a new place", hint: "opens a gate of its own" }]),
          ]}
          onChoose={choose}
        />
      </span>
      {SIZES.map(({ words, columns, rows }) => (
        <Button key={words} look="quiet" onClick={() => resize(columns, rows)}>
          {words}
        </Button>
      ))}
      <span className="font-mono text-soft">
        {Math.max(...stage.level.map(row => row.length))} × {stage.level.length} tiles
      </span>
    </div>
  );
}
