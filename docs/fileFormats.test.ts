import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Ajv from "ajv";
import * as v from "valibot";
import { expect, test } from "vitest";
import { stageSchema } from "#stage";
import { formatJsonSchemas } from "#handover";
import { compileCommand } from "../cli/compile.mjs";

const page = readFileSync("docs/file-formats.md", "utf8");
const example = (name: string): unknown =>
  JSON.parse(new RegExp("```json " + name + "\\n([\\s\\S]*?)```").exec(page)![1]!);
const schema = (name: string) =>
  JSON.parse(readFileSync(`docs/schema/${name}.schema.json`, "utf8")) as object;
const folder = mkdtempSync(join(tmpdir(), "moss-tap-"));
/** The command, compiled once; `npm run` compiles it at each start. */
const command = `${await compileCommand()}/moss-tap.mjs`;

function write(name: string, document: unknown): string {
  const file = join(folder, name);
  writeFileSync(file, typeof document === "string" ? document : JSON.stringify(document));
  return file;
}

test.each(Object.entries(formatJsonSchemas()))("%s is current (npm run schemas)", (file, text) => {
  expect(readFileSync(file, "utf8")).toBe(text);
});

test.each(["kit", "take", "takes", "trace", "layout", "checks", "assists", "mapping"])(
  "the example of a %s fits its schema, and one with a stray field does not",
  name => {
    const validate = new Ajv({ strict: false }).compile(schema(name));
    expect(validate(example(name)), JSON.stringify(validate.errors)).toBe(true);
    expect(validate({ ...(example(name) as object), stray: 1 })).toBe(false);
  },
);

test("the shipped demo fits the schemas", () => {
  const ajv = new Ajv({ strict: false });
  expect(ajv.validate(schema("kit"), JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8")))).toBe(true);
  expect(ajv.validate(schema("take"), JSON.parse(readFileSync("e2e/belfry/sloppy-climb.json", "utf8")))).toBe(
    true,
  );
});

test("the example of a stage parses", () => {
  expect(v.safeParse(stageSchema, example("stage")).success).toBe(true);
});

test("the command prints the page's trace and nothing else", () => {
  const out = execFileSync(
    "npm",
    [
      "run",
      "--silent",
      "trace",
      "--",
      write("kit.json", example("kit")),
      write("take.json", example("take")),
    ],
    { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] },
  );
  expect(JSON.parse(out)).toEqual(example("trace"));
});

test("the command runs a kit's stage, and refuses an invalid one", () => {
  const files = ["demo/belfry-runner/kit.json", "demo/belfry-runner/1-clean-climb.json"];
  const run = spawnSync("node", [command, "trace", ...files], { encoding: "utf8" });
  const { events } = JSON.parse(run.stdout) as { events: { f: number; kind: string; id: string }[] };
  expect(events.find(event => event.kind === "performed")).toMatchObject({ f: 84, id: "hop" });
  const kit = JSON.parse(readFileSync(files[0]!, "utf8")) as { stage: Record<string, unknown> };
  kit.stage.tilePx = "wide";
  const bad = spawnSync("node", [command, "trace", write("staged.json", kit), files[1]!], {
    encoding: "utf8",
  });
  expect([bad.status, bad.stdout]).toEqual([2, ""]);
  expect(bad.stderr).toContain("stage.tilePx");
});

test("an invalid file gives one line per fault with its path on standard error, and exit code 2", () => {
  const kit = example("kit") as { patterns: { for?: string }[] };
  kit.patterns[1]!.for = "12";
  const files = [write("bad.json", { ...kit, extra: 1 }), write("torn.json", "{")];
  const run = spawnSync("node", [command, "trace", ...files], { encoding: "utf8" });
  expect(run.status).toBe(2);
  expect(run.stdout).toBe("");
  const lines = run.stderr.trim().split("\n");
  expect(lines.length).toBe(3);
  expect(lines[0]).toContain("bad.json: extra: 'extra' is not a field here");
  expect(lines[1]).toContain("bad.json: patterns[1].for: '12' is not a length: write 12f or 200ms");
  expect(lines[2]).toContain("torn.json: the file: this is not JSON");
  expect(spawnSync("node", [command, "trace", "nowhere.json"], { encoding: "utf8" }).status).toBe(2);
});
