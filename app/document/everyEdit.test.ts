import fc from "fast-check";
import { expect, test } from "vitest";
import { parseChecks, type Check } from "#core";
import { readFileSync } from "node:fs";
import { layoutOf } from "../edits/layoutEdits";
import { putBack } from "../edits/putBack";
import { readKitAndTakes } from "../tests/evaluated";
import { EVERY_EDIT, type AnyEdit, type Choice } from "../tests/everyEdit";
import { openTab, type TestTab } from "../tests/testWorld";
import { isBroken, type KitDocument } from "../storage/records";
import { documentOf } from "./openDocument";
import { whyRefused } from "./whyRefused";
import type { Edit } from "./workbench";

const NAMES = Object.keys(EVERY_EDIT);
const DEMOS = ["belfry-runner", "clapper-duel", "rope-catch"] as const;

function readDemo(name: string): KitDocument {
  const { kit, takes } = readKitAndTakes(`demo/${name}`);
  const checks = parseChecks(JSON.parse(readFileSync(`demo/${name}/checks.json`, "utf8")));
  if (!checks.ok) throw new Error("the demo must read");
  const variants = [{ id: "v", name: "As it was", kit }];
  return {
    kit,
    takes,
    variants,
    layouts: [layoutOf(kit, "keys", "Keys")],
    checks: checks.value.checks as readonly Check[],
  };
}

const BEGINNINGS = DEMOS.map(readDemo);

function chooseBy(seed: number): Choice {
  let next = seed;
  const upTo = (most: number) => {
    next = (Math.imul(next, 1664525) + 1013904223) >>> 0;
    return most <= 0 ? 0 : Math.floor((next / 2 ** 32) * (most + 1));
  };
  return { of: list => list[upTo(list.length - 1)], upTo };
}

/** A model of a document with undo and redo, as plain lists. */
class Model {
  past: KitDocument[] = [];
  future: KitDocument[] = [];
  readonly edits: Edit[] = [];
  constructor(public now: KitDocument) {}

  /** Makes an edit; with `isPart` it belongs to a drag whose first edit made the step. */
  change(after: KitDocument, isPart = false): boolean {
    const lists = Object.keys(after) as (keyof KitDocument)[];
    if (lists.every(list => after[list] === this.now[list]) || whyRefused(this.now, after)) return false;
    if (!isPart) {
      this.past.push(this.now);
      this.future = [];
    }
    this.now = after;
    return true;
  }

  undo(): void {
    const before = this.past.pop();
    if (!before) return;
    this.future.push(this.now);
    this.now = before;
  }

  redo(): void {
    const next = this.future.pop();
    if (!next) return;
    this.past.push(this.now);
    this.now = next;
  }
}

type Command =
  | { readonly does: "edit"; readonly edit: string; readonly seed: number }
  | { readonly does: "putBack"; readonly edit: string; readonly seed: number }
  | { readonly does: "undo" }
  | { readonly does: "redo" }
  | {
      readonly does: "drag";
      readonly edits: readonly { readonly edit: string; readonly seed: number }[];
      readonly ends: "end" | "cancel" | "undo" | "edit" | "take";
    };

const anEdit = fc.record({ edit: fc.constantFrom(...NAMES), seed: fc.nat() });
const command: fc.Arbitrary<Command> = fc.oneof(
  { weight: 6, arbitrary: anEdit.map(edit => ({ does: "edit" as const, ...edit })) },
  { weight: 2, arbitrary: fc.constant({ does: "undo" as const }) },
  { weight: 1, arbitrary: fc.constant({ does: "redo" as const }) },
  { weight: 1, arbitrary: anEdit.map(edit => ({ does: "putBack" as const, ...edit })) },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant("drag" as const),
      edits: fc.array(anEdit, { minLength: 1, maxLength: 3 }),
      ends: fc.constantFrom("end", "cancel", "undo", "edit", "take"),
    }),
  },
);

const made = (name: string, seed: number) => (document: KitDocument) =>
  (EVERY_EDIT[name] as AnyEdit)(document, chooseBy(seed));

/** Applies a command to both the model and the workbench. */
function obey(model: Model, tab: TestTab, now: Command, seen: Set<string>): void {
  const { workbench } = tab;
  const editBoth = (name: string, seed: number) => {
    const after = made(name, seed)(model.now);
    if (model.change(after)) seen.add(name);
    const done = workbench.edit(name, () => after);
    if (done) model.edits.push(done);
  };
  if (now.does === "undo" || now.does === "redo") {
    model[now.does]();
    workbench[now.does]();
  } else if (now.does === "edit") editBoth(now.edit, now.seed);
  else if (now.does === "putBack") {
    const edit = chooseBy(now.seed).of(model.edits);
    if (!edit) return;
    model.change(putBack(edit.before, edit.after, model.now));
    workbench.putBack("put back", edit);
  } else if (now.does === "drag") {
    const before = { past: [...model.past], future: [...model.future], now: model.now };
    const step = workbench.beginStep();
    let isPart = false;
    for (const { edit, seed } of now.edits) {
      const after = made(edit, seed)(model.now);
      isPart = model.change(after, isPart) || isPart;
      step.run(() => workbench.edit(edit, () => after));
    }
    if (now.ends === "cancel") Object.assign(model, before);
    if (now.ends === "undo") {
      model.undo();
      workbench.undo();
    }
    if (now.ends === "edit") editBoth("rename the kit", now.edits[0]!.seed);
    if (now.ends === "take") workbench.openTake(model.now.takes.at(-1)?.id ?? "");
    // Whatever ended the drag, its own end and Escape either have no effect or are its end.
    if (now.ends === "cancel") step.cancel();
    else step.end();
    step.cancel();
  }
}

test("every kind of edit, in any order with undo, redo, drags and putting back, agrees with a plain list of documents", async () => {
  const seen = new Set<string>();
  let undone = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...BEGINNINGS),
      fc.array(command, { minLength: 20, maxLength: 60 }),
      async (beginning, commands) => {
        const tab = openTab();
        await tab.shelf.add({ ...beginning, takes: [...beginning.takes] }, "new");
        await tab.workbench.open(beginning.kit.id);
        const model = new Model(documentOf(tab.workbench.getState())!);
        for (const [k, one] of commands.entries()) {
          obey(model, tab, one, seen);
          if (one.does === "undo" && model.future.length > 0) undone++;
          const { kit, takes, variants, layouts, checks, openTakeId } = tab.workbench.getState();
          expect({ kit, takes, variants, layouts, checks }, `after command ${k}`).toEqual(model.now);
          // An item that was put back equals the old one but is another object.
          model.now = documentOf(tab.workbench.getState())!;
          expect(takes.some(({ id }) => id === openTakeId)).toBe(takes.length > 0);
          const { pastStates, futureStates } = tab.workbench.history.getState();
          expect([pastStates.length, futureStates.length], `steps after command ${k}`).toEqual([
            model.past.length,
            model.future.length,
          ]);
        }
        // Everything is stored: another page reads the same document.
        await tab.workbench.flush();
        const kept = await openTab(tab.browser).library.readKit(beginning.kit.id);
        if (!kept || isBroken(kept)) throw new Error("the kit must be stored");
        expect(kept.broken).toEqual([]);
        for (const part of Object.keys(model.now) as (keyof KitDocument)[])
          expect(kept.document[part], `${part} as stored`).toEqual(model.now[part]);
      },
    ),
    {
      numRuns: Number(process.env.RUNS ?? 25),
      ...(process.env.SEED === undefined ? {} : { seed: Number(process.env.SEED) }),
      reporter(details) {
        if (details.failed)
          throw new Error(
            `seed ${details.seed}: ${JSON.stringify(details.counterexample?.[1])}\n${String(details.errorInstance)}`,
          );
      },
    },
  );
  expect(undone).toBeGreaterThan(20);
  expect(NAMES.length).toBeGreaterThan(85);
  // Each kind of edit occurred and changed something.
  if (process.env.RUNS !== undefined) expect(NAMES.filter(name => !seen.has(name))).toEqual([]);
  else expect(seen.size).toBeGreaterThan(NAMES.length * 0.7);
});
