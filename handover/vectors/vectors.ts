import { toMarkdownText } from "../documents/inertText";
import type { Zippable } from "fflate";
import {
  compile,
  countWords,
  evaluate,
  findBoundaries,
  formatPhasedTrace,
  type Boundary,
  type CheckResult,
  type Kit,
} from "#core";
import { compileTakeJudge } from "#stage";
import { createRuns, type Runs } from "../runs";
import { withoutStage, withStageWritten } from "./bareKit";
import { checksOf, formatFile } from "../documents/documents";
import type { ExportFormat, Handover, HandoverParts, OnProgress } from "../kind";
import { createSlugs, slugOf, textFile, type OutFile } from "../outFile";
import { zipFiles } from "../pack/pack";
import { formatJsonSchemas } from "../schemas/jsonSchemas";

const PAGE = (name: string, count: number) => `# Test vectors of ${toMarkdownText(name)}

The results of the rules for ${count} recorded takes, to verify a port or a build: run each take, and compare.

- \`kit.json\`: the rules. \`takes/NAME.json\`: recorded input. \`traces/NAME.json\`: the expected events, in
  order. Numbers are rounded to six decimals.
- \`checks.json\`, \`results.json\`: what must and must not happen, and the results; only if the kit has checks.
- \`bare-kit.json\`, \`bare/NAME.json\`: only for a kit with a stage: the rules without it, and the takes with the gates that
  the stage opened and the speed of the clock written into them. The traces are the same.
- \`index.json\`: the kit, take and trace of each vector, in order; of a kit with a stage the bare ones.

A port is right if for every vector its trace has the same events, in the same order, with the same fields. The exact rules are
in \`frame-rules.md\`; its section "Controls" defines how input is read. With \`moss-tap-runtime.mjs\` and \`run-vectors.mjs\` beside
this page, \`node run-vectors.mjs\` compares them and reports each vector as right or wrong. Every document names its format and
version in its first two fields; the JSON Schemas are in \`schemas/\`.
`;

/** A page on the inputs made of boundaries, with the numbers that they do not distinguish from their neighbours. */
function describeBoundaries(boundaries: readonly Boundary[]): string {
  if (boundaries.length === 0) return "";
  const missed = boundaries.filter(({ isWhole }) => !isWhole);
  const lines = missed.map(
    ({ number: { rule, label, value }, tried }) =>
      `- ${toMarkdownText(`${rule}, ${label}`)} (${value}): ${countWords(tried, "input")} tried`,
  );
  return `
## Boundaries

\`boundaries/\` holds inputs made of the rules: for ${boundaries.length - missed.length} of ${boundaries.length} numbers, presses under
which the trace is another one if that number is one frame, or one, larger or smaller. They play without a stage.
${missed.length > 0 ? `\nNo such input was found for these, in one direction or both, so a port can have them wrong unnoticed:\n\n${lines.join("\n")}\n` : ""}`;
}

/** Packs kit, takes, traces, checks, results and the frame rules in one zip, with a page of instructions. */
export function makeVectors(
  { kit, takes, checks, skipsBoundaries }: Handover,
  { runtime }: Pick<HandoverParts, "runtime">,
  runs: Runs | undefined,
  onProgress?: OnProgress,
): Zippable | undefined {
  if (!runs) return undefined;
  const { program } = runs.rules;
  const files: Record<string, Uint8Array> = {};
  const put = (name: string, text: string) => {
    files[name] = textFile(name, text, "application/json").bytes;
  };
  const bare = withoutStage(kit);
  const boundaries = skipsBoundaries
    ? []
    : findBoundaries(bare, (done, of) => onProgress?.(done, of, "numbers"));
  put("README.md", `${PAGE(kit.name, takes.length)}${describeBoundaries(boundaries)}`);
  for (const { name, bytes } of runtime) if (name === "frame-rules.md") files[name] = bytes;
  put("kit.json", formatFile(kit));
  for (const [file, text] of Object.entries(formatJsonSchemas()))
    put(file.replace("docs/schema", "schemas"), text);
  const hasStage = kit.stage !== undefined;
  const slugFor = createSlugs("take");
  const index = takes.map(take => {
    const own = slugFor(take.name);
    put(`takes/${own}.json`, formatFile(take));
    put(`traces/${own}.json`, `${JSON.stringify(formatPhasedTrace(program, runs.traceOf(take)))}\n`);
    if (hasStage) put(`bare/${own}.json`, formatFile(withStageWritten(kit, take, runs)));
    return {
      kit: hasStage ? "bare-kit.json" : "kit.json",
      take: hasStage ? `bare/${own}.json` : `takes/${own}.json`,
      trace: `traces/${own}.json`,
    };
  });
  if (hasStage) put("bare-kit.json", formatFile(bare));
  index.push(...putBoundaries(bare, boundaries, hasStage ? "bare-kit.json" : "kit.json", put));
  put("index.json", `${JSON.stringify({ vectors: index }, null, 2)}\n`);
  for (const document of checksOf(kit, checks)) {
    put("checks.json", formatFile(document));
    const judge = compileTakeJudge(kit, checks);
    if (!judge.ok) continue;
    const results = takes.flatMap(take =>
      judge.value(take).map(({ check, ...verdict }): CheckResult => {
        return { ...verdict, check: checks[check]!.id, take: take.id };
      }),
    );
    put("results.json", `${JSON.stringify({ format: "moss-tap/results", version: 1, results }, null, 2)}\n`);
  }
  return files;
}

/** Writes the inputs made of boundaries with their traces; returns their lines in the index. */
function putBoundaries(
  kit: Kit,
  boundaries: readonly Boundary[],
  kitFile: string,
  put: (name: string, text: string) => void,
) {
  const compiled = compile(kit);
  if (!compiled.ok) return [];
  const program = compiled.value;
  return boundaries.flatMap(({ takes }) =>
    takes.map(take => {
      const files = { kit: kitFile, take: `boundaries/${take.id}.json`, trace: `traces/${take.id}.json` };
      put(files.take, formatFile(take));
      put(files.trace, `${JSON.stringify(formatPhasedTrace(program, evaluate(program, take)))}\n`);
      return files;
    }),
  );
}

/** Exports test vectors: the expected results of the takes, for a port or a build. */
export const vectorsFormat: ExportFormat = {
  id: "vectors",
  word: "Test vectors",
  hint: "Kit, takes, inputs at the boundary of every number, and what the rules make of them, with the frame rules and a page on how to use it all: proof for a port.",
  uses: ["runs", "frame-rules", "boundaries"],
  commands: [{ as: "vectors" }],
  packed: {
    folder: "vectors",
    line: "what the runtime, or a port, must make of the takes",
    files: (handover, parts, runs, onProgress) =>
      Object.entries(makeVectors(handover, parts, runs, onProgress) ?? {}).map(([name, bytes]): OutFile => ({
        name,
        bytes: bytes as Uint8Array<ArrayBuffer>,
        type: "",
      })),
  },
  files(handover, parts, onProgress) {
    const files = makeVectors(handover, parts, createRuns(handover, onProgress), onProgress);
    if (!files) return [];
    const bytes = zipFiles(files);
    return [{ name: `${slugOf(handover.kit.name) || "kit"}.vectors.zip`, bytes, type: "application/zip" }];
  },
};
