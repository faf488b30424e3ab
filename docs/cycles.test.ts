import { execFileSync } from "node:child_process";
import { build } from "esbuild";
import { expect, test } from "vitest";

/** Returns the files that each file imports, imports of types apart. */
async function readImports(): Promise<ReadonlyMap<string, readonly string[]>> {
  const files = execFileSync("git", ["ls-files", "*.ts", "*.tsx"], { encoding: "utf8" }).trim().split("\n");
  const { metafile } = await build({
    stdin: { contents: files.map(file => `import "./${file}";`).join("\n"), resolveDir: "." },
    bundle: true,
    metafile: true,
    write: false,
    outdir: "build",
    format: "esm",
    platform: "node",
    target: "esnext",
    packages: "external",
    loader: { ".css": "empty" },
    logLevel: "error",
  });
  return new Map(
    Object.entries(metafile.inputs).map(([file, { imports }]) => [
      file,
      imports.filter(({ external }) => !external).map(({ path }) => path),
    ]),
  );
}

/** Returns the files that import themselves through others, and the files between such rings. */
function listRings(imports: ReadonlyMap<string, readonly string[]>): readonly string[] {
  let left = [...imports.keys()];
  for (let before = Infinity; left.length < before;) {
    before = left.length;
    const among = new Set(left);
    const imported = new Set(left.flatMap(file => imports.get(file)!));
    left = left.filter(file => imported.has(file) && imports.get(file)!.some(path => among.has(path)));
  }
  return left;
}

test("no file imports itself through others", async () => {
  const imports = await readImports();
  expect(imports.size).toBeGreaterThan(800);
  expect(imports.get("core/run/step.ts")).toContain("core/gates/stepGates.ts");
  expect(listRings(new Map([...imports, ["a", ["b"]], ["b", ["a", "c"]], ["c", []]]))).toEqual(["a", "b"]);
  expect(listRings(imports)).toEqual([]);
});
