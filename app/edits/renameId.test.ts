import { readdirSync } from "node:fs";
import { expect, test } from "vitest";
import { formatTrace, readTake } from "#core";
import { compileRules, parseRules, runRules } from "#stage";
import { readKitAndTakes } from "../tests/evaluated";
import { layoutOf } from "./layoutEdits";
import { renameId, whyNotId, type IdList } from "./renameId";

const LISTS: readonly IdList[] = ["controls", "patterns", "moves", "gates", "prompts"];

test.each(
  readdirSync("demo", { withFileTypes: true }).flatMap(entry => (entry.isDirectory() ? [entry.name] : [])),
)("every id of %s can be another, and its takes are understood as before", folder => {
  const { kit, takes } = readKitAndTakes(`demo/${folder}`);
  const layouts = [layoutOf(kit, "l", "L")];
  const understood = (document: { kit: typeof kit; takes: typeof takes }) => {
    const compiled = compileRules(document.kit);
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
    const rules = compiled.value;
    return document.takes.map(
      take => formatTrace(rules.program, runRules(rules, readTake(rules.program, take)).trace).events,
    );
  };
  for (const list of LISTS)
    for (const { id } of (kit[list] ?? []) as readonly { id: string }[]) {
      const to = `${id}-as-new`;
      const renamed = renameId({ kit, takes, layouts, checks: [], variants: [] }, list, id, to);
      expect(parseRules(JSON.parse(JSON.stringify(renamed.kit))).ok, to).toBe(true);
      const was = JSON.parse(JSON.stringify(understood(renamed)).replaceAll(to, id)) as unknown;
      expect(was, `${list} ${id}`).toEqual(understood({ kit, takes }));
      expect(renameId(renamed, list, to, id)).toEqual({ kit, takes, layouts, checks: [], variants: [] });
      if (list === "controls") expect(Object.keys(renamed.layouts[0]!.bindings)).toContain(to);
    }
});

test("what a take knows of a press and of a game's moves follows their ids", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const [first, ...others] = takes;
  const take = { ...first!, unmeant: { leap: [84], brace: [20] }, did: { hop: [86], spring: [] } };
  const document = { kit, takes: [take, ...others], layouts: [], checks: [], variants: [] };
  const renamed = (list: IdList, from: string) => renameId(document, list, from, "new").takes[0];
  expect(renamed("controls", "leap")).toMatchObject({
    unmeant: { new: [84], brace: [20] },
    did: { hop: [86], spring: [] },
  });
  expect(renamed("moves", "hop")).toEqual({ ...take, did: { new: [86], spring: [] } });
  expect(renamed("patterns", "leap-press")).toBe(take);
});

test("variants are played by the takes as before, also one that has the new id for a rule of its own", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  const spare = { id: "jump", name: "Spare", bindings: [] };
  const old = { ...kit, controls: [...kit.controls, spare] };
  const variants = [
    { id: "same", name: "Same", kit },
    { id: "old", name: "Old", kit: old },
  ];
  const document = { kit, takes, layouts: [], checks: [], variants };
  const renamed = renameId(document, "controls", "leap", "jump");
  expect(renamed.variants[0]!.kit).toEqual(renamed.kit);
  const ids = renamed.variants[1]!.kit.controls.map(({ id }) => id);
  expect(new Set(ids).size).toBe(old.controls.length);
  expect(ids[kit.controls.findIndex(({ id }) => id === "leap")]).toBe("jump");
  const eventsIn = (of: typeof kit, played: typeof takes) => {
    const rules = compileRules(of);
    if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
    const { program } = rules.value;
    return played.map(take => runRules(rules.value, readTake(program, take)).trace.count);
  };
  for (const { kit: own } of renamed.variants)
    expect(eventsIn(own, renamed.takes)).toEqual(eventsIn(kit, takes));
  const back = renameId(renamed, "controls", "jump", "leap");
  expect(back.variants[0]).toEqual(variants[0]);
  const bare = { id: "bare", name: "Bare", kit: { ...kit, gates: kit.gates!.slice(0, 1), moves: [] } };
  expect(renameId({ ...document, variants: [bare] }, "moves", "hop", "bound").variants[0]).toBe(bare);
});

test("an id that is taken, or can be none, is refused in words", () => {
  const { kit } = readKitAndTakes("demo/belfry-runner");
  const [first, second] = kit.patterns;
  expect(whyNotId(kit, "patterns", first!.id, second!.id)).toContain("Another has the id");
  expect(whyNotId(kit, "patterns", first!.id, "a/b")).toContain("without /");
  expect(whyNotId(kit, "patterns", first!.id, first!.id)).toBe("");
});
