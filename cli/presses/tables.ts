import { closeSync, openSync, writeSync } from "node:fs";
import { fileWriter, ParquetWriter, type SchemaElement } from "hyparquet-writer";
import Papa from "papaparse";
import { INERT_CSV } from "#handover";
import { PRESS_COLUMNS, type ColumnSort } from "#core";
import type { PressColumns } from "./readPresses";

/** A table written to disk in chunks, in constant memory. */
export interface TableFile {
  readonly add: (columns: PressColumns) => void | Promise<void>;
  readonly finish: () => void | Promise<void>;
}

const NAMES = PRESS_COLUMNS.map(([name]) => name);

/**
 * Writes CSV (RFC 4180): a header, then a line per press; missing values are empty, and text is inert in a
 * spreadsheet.
 */
function writeCsv(file: string): TableFile {
  const out = openSync(file, "w");
  const write = (rows: readonly (readonly unknown[])[]) =>
    writeSync(out, `${Papa.unparse(rows as unknown[][], INERT_CSV)}\r\n`);
  write([NAMES]);
  return {
    add(columns) {
      const rows = columns[0]!.map((_, r) => columns.map(column => column[r]));
      if (rows.length > 0) write(rows);
    },
    finish: () => closeSync(out),
  };
}

const SCHEMA: Readonly<Record<ColumnSort, Partial<SchemaElement>>> = {
  text: { type: "BYTE_ARRAY", converted_type: "UTF8" },
  whole: { type: "INT32" },
  number: { type: "DOUBLE" },
};

/** The number of presses per row group. */
const GROUP_ROWS = 50_000;

/** Writes compressed Apache Parquet, one row group at a time. */
function writeParquet(file: string): TableFile {
  const schema: SchemaElement[] = [
    { name: "presses", num_children: PRESS_COLUMNS.length },
    ...PRESS_COLUMNS.map(([name, sort]): SchemaElement => ({
      name,
      repetition_type: "OPTIONAL",
      ...SCHEMA[sort],
    })),
  ];
  const writer = new ParquetWriter({ writer: fileWriter(file), schema });
  let waiting = PRESS_COLUMNS.map((): (string | number | null)[] => []);
  async function flush(): Promise<void> {
    if (waiting[0]!.length === 0) return;
    const columnData = waiting.map((data, c) => ({ name: NAMES[c]!, data }));
    waiting = PRESS_COLUMNS.map(() => []);
    await writer.write({ columnData, rowGroupSize: GROUP_ROWS });
  }
  return {
    async add(columns) {
      columns.forEach((column, c) => {
        for (const value of column) waiting[c]!.push(value);
      });
      if (waiting[0]!.length >= GROUP_ROWS) await flush();
    },
    async finish() {
      await flush();
      await writer.finish();
    },
  };
}

/** The table formats, by file extension. */
export const TABLES: Readonly<Record<string, (file: string) => TableFile>> = {
  ".csv": writeCsv,
  ".parquet": writeParquet,
};
