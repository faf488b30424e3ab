import { beforeEach, expect, test } from "vitest";
import { writeAt, type SweepPoint, type TakeFeel } from "#core";
import { readKitAndTakes } from "../tests/evaluated";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";
import { isOld, type Study } from "./studying";

const { kit: KIT, takes: TAKES } = readKitAndTakes("demo/belfry-runner");
const BUFFER = ["moves", 0, "buffer"] as const;

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, TAKES);
});

const study = <V>(name: string) => tab.studying.getState().get(name) as Study<V> | undefined;
const open = () => tab.workbench.getState();

function sweep(name: string, values: readonly number[]): void {
  const { kit, takes, checks } = open();
  const swept = { kind: "length", path: BUFFER, unit: "f" } as const;
  tab.studying.begin(name, {
    job: "sweep",
    questions: [0, 1].map(half => ({
      sweep: { kit: kit!, swept, values: values.filter((_, k) => k % 2 === half) },
      checks,
    })),
    takes,
    merge: answers => answers.flatMap(points => points ?? []).sort((a, b) => a.value - b.value),
  });
}

test("a study is made by two workers into one answer, and is of an older kit once something it depends on changes", async () => {
  sweep("sweep", [0, 6, 12, 18]);
  expect(study("sweep")).toMatchObject({ state: "working", share: 0 });
  await until(() => study("sweep")?.state === "done");
  const points = study<readonly SweepPoint[]>("sweep")!.value!;
  expect(points.map(({ value }) => value)).toEqual([0, 6, 12, 18]);
  // The press that is lost before the landing is saved from 17f on.
  expect(points.map(({ saved }) => saved)).toEqual([0, 0, 0, 1]);
  expect(isOld(study("sweep")!, open())).toBe(false);
  const edit = tab.workbench.editKit("a buffer", kit => writeAt(kit, BUFFER, "9f"));
  expect(isOld(study("sweep")!, open())).toBe(true);
  expect(study("sweep")!.value).toBe(points);
  tab.workbench.undo();
  expect(isOld(study("sweep")!, open())).toBe(false);
  expect(edit).toBeDefined();
  tab.workbench.removeTake(TAKES[0]!.id);
  expect(isOld(study("sweep")!, open())).toBe(true);
});

test("a cancelled study ends at once and keeps its partial result; a restart drops old answers; it ends with its kit", async () => {
  // Enough values that the study cannot finish between two checks.
  const values = Array.from({ length: 600 }, (_, k) => k);
  sweep("sweep", values);
  await until(() => (study<readonly SweepPoint[]>("sweep")?.value?.length ?? 0) > 2);
  const found = study<readonly SweepPoint[]>("sweep")!.value!.length;
  tab.studying.stop("sweep");
  expect(study("sweep")).toMatchObject({ state: "stopped" });
  expect(study<readonly SweepPoint[]>("sweep")!.value!.length).toBe(found);
  sweep("sweep", [6]);
  await until(() => study("sweep")?.state === "done");
  expect(study<readonly SweepPoint[]>("sweep")!.value!.length).toBe(1);
  tab.studying.settings.setState(new Map([["sweep hand", "none"]]), true);
  await openKit(tab, { ...KIT, id: "another", name: "Another" }, []);
  expect(tab.studying.getState().size).toBe(0);
  expect(tab.studying.settings.getState().size).toBe(0);
});

test("a failed job has a reason; a feel study reports take by take", async () => {
  const broken = { ...KIT, moves: [{ ...KIT.moves![0]!, pattern: "nowhere" }] };
  tab.studying.begin("fit", {
    job: "fit",
    questions: [{ kit: broken }],
    takes: TAKES,
    merge: ([fit]) => fit,
  });
  await until(() => study("fit")?.state === "failed");
  expect(study("fit")!.reason).toBe("the kit has faults");
  tab.studying.begin("feel", {
    job: "feel",
    questions: [{ kit: KIT }],
    takes: TAKES,
    merge: ([feels]) => feels ?? [],
  });
  await until(() => study("feel")?.state === "done");
  const feels = study<readonly TakeFeel[]>("feel")!.value!;
  expect(feels.map(({ take }) => take)).toEqual(TAKES.map(({ id }) => id));
  const misses = feels[2]!.misses.map(({ move, frame, by }) => [KIT.moves![move]!.id, frame, by]);
  expect(misses).toEqual([
    ["second-hop", 136, 11],
    ["hop", 136, 11],
  ]);
});
