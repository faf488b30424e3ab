import { writeAt, type Kit } from "#core";
import { useWorkbench } from "../../document/workbenchContext";
import { LengthStone } from "../../ui/LengthStone";
import { NumberStone } from "../../ui/NumberStone";
import type { NumberBounds } from "../../ui/numberText";
import { lengthIn, type Unit } from "../model/lengthUnits";

type Path = readonly (string | number)[];

const MAX_TILES = 1000;

/** Returns makers of editable numbers of the kit, with lengths shown in a unit. */
export function useJumpFields(kit: Kit, unit: Unit, tilePx: number) {
  const workbench = useWorkbench();
  const { show, read } = lengthIn(unit, tilePx);
  const set = (label: string, path: Path, value: unknown, words = String(value)) =>
    workbench.editKit(`${label} ${words}`.trim(), now => writeAt(now, path, value));
  return {
    show,
    read,
    set,
    /** A plain number. */
    number: (label: string, value: number, path: Path, bounds: NumberBounds = { least: 0, most: 1000 }) => (
      <NumberStone
        label={label}
        value={value}
        {...bounds}
        onChange={next => set(label, path, next)}
        beginStep={workbench.beginStep}
      />
    ),
    /** A length, speed or acceleration in the chosen unit, stored in tiles. */
    far: (label: string, value: number, path: Path) => (
      <NumberStone
        label={label}
        value={show(value)}
        least={0}
        onChange={typed => set(label, path, Math.min(MAX_TILES, read(typed)), `${typed} ${unit}`)}
        beginStep={workbench.beginStep}
      />
    ),
    /** A length of time. */
    time: (label: string, value: string, path: Path, least = 0) => (
      <LengthStone
        label={label}
        value={value}
        rateHz={kit.rate}
        rounding="atLeast"
        least={least}
        onChange={next => set(label, path, next)}
        beginStep={workbench.beginStep}
      />
    ),
  };
}

export type JumpFields = ReturnType<typeof useJumpFields>;
