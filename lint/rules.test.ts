import { execFile } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { expect, test } from "vitest";

/** Sources by their paths, each with the rules that it breaks, in order of their lines. */
const SOURCES: Readonly<Record<string, { readonly code: string; readonly breaks: readonly string[] }>> = {
  "app/tape/hand/drag.ts": { code: `export * from "../model/rows";`, breaks: [] },
  "app/tune/Sweep.ts": { code: `export * from "./sweep/SweepQuestion"; export * from "#core";`, breaks: [] },
  "app/tape/model/rows.ts": { code: `export * from "../hand/drag";`, breaks: ["moss(arrows)"] },
  "app/ui/menu.ts": { code: `export const shape = import("../shape/Shape");`, breaks: ["moss(arrows)"] },
  "app/tune/Chart.ts": { code: `export { app } from "../compose";`, breaks: ["moss(arrows)"] },
  "app/edits/path.ts": {
    code: `export * from "../../core/kit/kit";`,
    breaks: ["eslint(no-restricted-imports)"],
  },
  "app/tune/Sheet.tsx": {
    code: `export { Dialog } from "@headlessui/react";`,
    breaks: ["eslint(no-restricted-imports)"],
  },
  "app/ui/state.ts": {
    code: `export let count = 0;\nexport const cache = new WeakMap();\nexport const make = () => new WeakMap();`,
    breaks: ["moss(no-module-state)", "moss(no-module-state)"],
  },
  "app/ui/Part.tsx": {
    code: `export function Part() {\n  const Inner = () => <p />;\n  return <Inner key={Math.random()} />;\n}`,
    breaks: ["react(static-components)", "react(purity)"],
  },
  "stage/ids.ts": {
    code: `export const a = (kit: Kit, id: string, i: number) => [kit.gates[i],\n  kit.gates[id],\n  kit.lanes[id]];`,
    breaks: ["moss(no-inherited)", "moss(no-inherited)"],
  },
  "stage/kinds.ts": { code: `"use strict";\nregister(kinds);`, breaks: ["moss(no-effects)"] },
  "stage/notes.ts": {
    code: "export const a = (trace: Trace) => trace.payload[4];",
    breaks: ["moss(no-payload)"],
  },
  "core/clock.ts": {
    code: `export * from "#stage";\nexport const a = () => Date.now();\nexport const b = () => Math.random();`,
    breaks: [
      "eslint(no-restricted-imports)",
      "eslint(no-restricted-globals)",
      "eslint(no-restricted-properties)",
    ],
  },
  "core/program/state.ts": {
    code: `export * from "../run/step";`,
    breaks: ["eslint(no-restricted-imports)"],
  },
};

interface Diagnostic {
  readonly code: string;
  readonly filename: string;
  readonly labels: readonly { readonly span: { readonly offset: number } }[];
}

/** Lints the sources in a folder of their own, with the rules of this one. */
async function lint(folder: string): Promise<readonly Diagnostic[]> {
  for (const path of ["oxlint.config.js", "package.json", "lint/rules.js", "docs/architecture.md"])
    cpSync(path, join(folder, path));
  symlinkSync(resolve("node_modules"), join(folder, "node_modules"));
  for (const [path, { code }] of Object.entries(SOURCES)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), code);
  }
  const args = ["-c", "oxlint.config.js", "-f", "json", "app", "core", "stage"];
  const output = await new Promise<string>(done =>
    execFile(resolve("node_modules/.bin/oxlint"), args, { cwd: folder }, (_error, out) => done(out)),
  );
  return (JSON.parse(output) as { diagnostics: readonly Diagnostic[] }).diagnostics;
}

test("lint finds imports, state, clocks and lookups that the plan of the house forbids", async () => {
  const folder = mkdtempSync(join(tmpdir(), "lint-"));
  try {
    const found = (await lint(folder)).toSorted(
      (a, b) => a.labels[0]!.span.offset - b.labels[0]!.span.offset,
    );
    for (const [path, { breaks }] of Object.entries(SOURCES))
      expect([path, ...found.filter(({ filename }) => filename === path).map(({ code }) => code)]).toEqual([
        path,
        ...breaks,
      ]);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
