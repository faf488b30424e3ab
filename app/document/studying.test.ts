import { beforeEach, expect, test } from "vitest";
import { writeAt } from "#core";
import { readKitAndTakes } from "../tests/evaluated";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";
import { shallow } from "zustand/shallow";
import { foundOf, isOld } from "./studying";
import { DEFAULT_STUDY_SETTINGS, type StudyName } from "./studySettings";

const { kit: KIT, takes: TAKES } = readKitAndTakes("demo/belfry-runner");
const BUFFER = ["moves", 0, "buffer"] as const;

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, TAKES);
});

const study = <N extends StudyName>(name: N) => tab.studying.getState()[name];
const sweptPoints = () => (study("sweep")?.value ?? []).flatMap(points => points ?? []);
const open = () => tab.workbench.getState();

function sweep(values: readonly number[]): void {
  const { kit, takes, checks } = open();
  const swept = { kind: "length", path: BUFFER, unit: "f" } as const;
  tab.studying.begin("sweep", {
    job: "sweep",
    questions: [0, 1].map(half => ({
      sweep: { kit: kit!, swept, values: values.filter((_, k) => k % 2 === half) },
      checks,
    })),
    takes,
    merge: answers => answers,
  });
}

test("a study is made by two workers into one answer, and is of an older kit once something it depends on changes", async () => {
  sweep([0, 6, 12, 18]);
  expect(study("sweep")).toMatchObject({ state: "working", share: 0 });
  await until(() => study("sweep")?.state === "done");
  const { value } = study("sweep")!;
  const points = sweptPoints().sort((a, b) => a.value - b.value);
  expect(points.map(({ value }) => value)).toEqual([0, 6, 12, 18]);
  // The press that is lost before the landing is saved from 17f on.
  expect(points.map(({ saved }) => saved)).toEqual([0, 0, 0, 1]);
  expect(isOld(study("sweep")!, open())).toBe(false);
  const edit = tab.workbench.editKit("a buffer", kit => writeAt(kit, BUFFER, "9f"));
  expect(isOld(study("sweep")!, open())).toBe(true);
  expect(study("sweep")!.value).toBe(value);
  tab.workbench.undo();
  expect(isOld(study("sweep")!, open())).toBe(false);
  expect(edit).toBeDefined();
  tab.workbench.removeTake(TAKES[0]!.id);
  expect(isOld(study("sweep")!, open())).toBe(true);
});

test("a report of progress alone leaves what a study has found as it is", async () => {
  const steps = { ofProgress: 0, ofMore: 0 };
  let answers = 0;
  tab.studying.subscribe(({ sweep: now }, { sweep: before }) => {
    if (!now || !before) return;
    const isSame = shallow(foundOf(now), foundOf(before));
    const known = (now.value ?? []).reduce((sum, points) => sum + (points?.[0]?.runs ?? 0), 0);
    if (known > answers) expect(isSame).toBe(false);
    answers = known;
    if (!isSame) steps.ofMore++;
    else if (now.share > before.share) steps.ofProgress++;
  });
  // Enough values that reports come before the study is done.
  sweep(Array.from({ length: 4000 }, (_, k) => k));
  await until(() => steps.ofProgress > 0 && steps.ofMore > 3);
  tab.studying.stop("sweep");
});

test("a cancelled study ends at once and keeps its partial result; a restart drops old answers; it ends with its kit", async () => {
  let found = 0;
  // Cancelled in the report itself: on a busy machine the study can end between two looks at it.
  const unsubscribe = tab.studying.subscribe(() => {
    if (study("sweep")?.state !== "working" || sweptPoints().length < 3) return;
    unsubscribe();
    found = sweptPoints().length;
    tab.studying.stop("sweep");
  });
  sweep(Array.from({ length: 4000 }, (_, k) => k));
  await until(() => study("sweep")?.state === "stopped");
  expect(sweptPoints().length).toBe(found);
  sweep([6]);
  await until(() => study("sweep")?.state === "done");
  expect(sweptPoints().length).toBe(1);
  const { sweep: own } = DEFAULT_STUDY_SETTINGS;
  tab.studying.settings.setState({ sweep: { ...own, hand: "Steady" } });
  await openKit(tab, { ...KIT, id: "another", name: "Another" }, []);
  expect(tab.studying.getState()).toEqual({});
  expect(tab.studying.settings.getState()).toEqual(DEFAULT_STUDY_SETTINGS);
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
  const feels = study("feel")!.value!;
  expect(feels.map(({ take }) => take)).toEqual(TAKES.map(({ id }) => id));
  const misses = feels[2]!.misses.map(({ move, frame, by }) => [KIT.moves![move]!.id, frame, by]);
  expect(misses).toEqual([
    ["second-hop", 136, 11],
    ["hop", 136, 11],
  ]);
});
