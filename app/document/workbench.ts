import { temporal } from "zundo";
import { createStore } from "zustand/vanilla";
import {
  readTake,
  type InputColumns,
  type Issue,
  type Kit,
  type Layout,
  type Program,
  type Take,
  type Trace,
} from "#core";
import { compileStaged, runOnStage } from "../judging/staged";
import { leaveBehind } from "../storage/leftBehind";
import {
  listTakeChanges,
  listTakes,
  readKit,
  writeKit,
  writeTakes,
  type RowOrder,
  type Variant,
} from "../storage/library";

/** The document under work: a kit, its takes and the variants kept of it. Undo and redo go over all of them together. */
export interface Workbench {
  readonly kit: Kit | undefined;
  readonly takes: readonly Take[];
  readonly variants: readonly Variant[];
  /** Named sets of bindings. */
  readonly layouts: readonly Layout[];
  /** How the tape's rows are laid out: kept with the kit, not undone. */
  readonly rows: RowOrder;
  readonly openTakeId: string | undefined;
  /** What was changed last, for the shelf. */
  readonly change: string;
}

const HISTORY = 500;
const SAVE_AFTER_MS = 250;

const NOTHING: Pick<Workbench, "kit" | "takes" | "variants" | "layouts" | "rows"> = {
  kit: undefined,
  takes: [],
  variants: [],
  layouts: [],
  rows: { folded: [], order: [] },
};

export const workbench = createStore<Workbench>()(
  temporal((): Workbench => ({ ...NOTHING, openTakeId: undefined, change: "" }), {
    partialize: ({ kit, takes, variants, layouts }) => ({ kit, takes, variants, layouts }),
    equality: (past, now) =>
      past.kit === now.kit &&
      past.takes === now.takes &&
      past.variants === now.variants &&
      past.layouts === now.layouts,
    limit: HISTORY,
  }),
);

/** The parts that are written to the shelf. */
type Kept = Pick<Workbench, "kit" | "takes" | "variants" | "layouts" | "rows">;
let saved: Kept = NOTHING;

function isSaved(now: Kept): boolean {
  return (
    now.kit === saved.kit &&
    now.takes === saved.takes &&
    now.variants === saved.variants &&
    now.layouts === saved.layouts &&
    now.rows === saved.rows
  );
}
let saveTimer: ReturnType<typeof setTimeout> | undefined;

/** Writes what has changed since the last time. Called soon after every edit, and at once when the page is left. */
export async function saveNow(): Promise<void> {
  clearTimeout(saveTimer);
  saveTimer = undefined;
  const now = workbench.getState();
  const { kit, takes, variants, layouts, rows, change } = now;
  if (!kit || isSaved(now)) return;
  const before = saved;
  saved = { kit, takes, variants, layouts, rows };
  await Promise.all([
    writeKit({ id: kit.id, kit, changedAt: Date.now(), change, variants, layouts, rows }),
    takes === before.takes ? undefined : writeTakes(kit.id, takes, before.takes),
  ]);
}

/** The page is being left: what is not yet written is set aside at once, for the next page to write. */
export function leaveNow(): void {
  const now = workbench.getState();
  const { kit, takes, variants, layouts, rows, change } = now;
  if (!kit || isSaved(now)) return;
  const { gone, changed } = listTakeChanges(kit.id, takes, saved.takes);
  leaveBehind({
    kit: { id: kit.id, kit, changedAt: Date.now(), change, variants, layouts, rows },
    takes: changed,
    goneTakeIds: gone.map(take => take.id),
  });
}

workbench.subscribe(now => {
  if (isSaved(now)) return;
  saveTimer ??= setTimeout(() => void saveNow(), SAVE_AFTER_MS);
});

/** Opens a kit from the shelf, unless it is open already. False when the shelf has none of that id. */
export async function openKit(kitId: string): Promise<boolean> {
  if (workbench.getState().kit?.id === kitId) return true;
  await saveNow();
  const record = await readKit(kitId);
  if (!record) return false;
  const takes = (await listTakes(kitId)).map(item => item.take);
  saved = {
    kit: record.kit,
    takes,
    variants: record.variants ?? NOTHING.variants,
    layouts: record.layouts ?? NOTHING.layouts,
    rows: record.rows ?? NOTHING.rows,
  };
  workbench.setState({ ...saved, openTakeId: takes[0]?.id, change: record.change });
  workbench.temporal.getState().clear();
  return true;
}

/** Lets go of the open kit, for example because it has left the shelf. */
export function closeKit(): void {
  saved = NOTHING;
  workbench.setState({ ...NOTHING, openTakeId: undefined });
  workbench.temporal.getState().clear();
}

/** Changes the kit. `what` says in a few words what was done. */
export function editKit(what: string, edit: (kit: Kit) => Kit): void {
  const { kit } = workbench.getState();
  if (kit) workbench.setState({ kit: edit(kit), change: what });
}

/** A movement of the hand under way. */
export interface Gesture {
  /** To be called after each edit: only the first is remembered for undo. */
  readonly edited: () => void;
  readonly end: () => void;
  /** Ends it with everything as it was before, and nothing to undo. */
  readonly cancel: () => void;
}

/** Begins one movement of the hand, which may make many edits and is one step of undo. */
export function beginGesture(): Gesture {
  const history = workbench.temporal.getState();
  const { kit, takes, variants, layouts } = workbench.getState();
  let isEdited = false;
  return {
    edited() {
      isEdited = true;
      history.pause();
    },
    end: () => history.resume(),
    cancel() {
      history.pause();
      workbench.setState({ kit, takes, variants, layouts });
      history.resume();
      if (isEdited) workbench.temporal.setState(state => ({ pastStates: state.pastStates.slice(0, -1) }));
    },
  };
}

/** Lays the tape's rows out anew; kept with the kit, no step of undo. */
export function arrangeTape(change: (rows: RowOrder) => RowOrder): void {
  workbench.setState(({ rows }) => ({ rows: change(rows) }));
}

/** Keeps the present rules under a name, to lay other versions beside. */
export function keepVariant(id: string, name: string): void {
  const { kit, variants } = workbench.getState();
  if (kit) workbench.setState({ variants: [...variants, { id, name, kit }], change: `kept variant ${name}` });
}

/** Forgets a variant; undo brings it back. */
export function removeVariant(id: string): void {
  const { variants } = workbench.getState();
  workbench.setState({ variants: variants.filter(variant => variant.id !== id), change: "forgot a variant" });
}

/** Takes a variant's rules up again; what stood before is a step of undo away. */
export function takeUpVariant(id: string): void {
  const found = workbench.getState().variants.find(variant => variant.id === id);
  if (found) editKit(`took up variant ${found.name}`, kit => ({ ...found.kit, id: kit.id, name: kit.name }));
}

/** Changes the list of layouts. `what` says in a few words what was done. */
export function editLayouts(what: string, edit: (layouts: readonly Layout[]) => readonly Layout[]): void {
  workbench.setState(({ layouts }) => ({ layouts: edit(layouts), change: what }));
}

/** Adds a take and opens it. `what` says in a few words how it came about. */
export function addTake(take: Take, what = `recorded ${take.name}`): void {
  const { takes } = workbench.getState();
  workbench.setState({ takes: [...takes, take], openTakeId: take.id, change: what });
}

/** Opens one of the kit's takes on the tape. */
export function openTake(takeId: string): void {
  workbench.setState({ openTakeId: takeId });
}

/** Renames a take. */
export function renameTake(takeId: string, name: string): void {
  const { takes } = workbench.getState();
  workbench.setState({
    takes: takes.map(take => (take.id === takeId ? { ...take, name } : take)),
    change: `renamed ${name}`,
  });
}

/** Changes one take. */
export function editTake(what: string, takeId: string, edit: (take: Take) => Take): void {
  const { takes } = workbench.getState();
  workbench.setState({ takes: takes.map(take => (take.id === takeId ? edit(take) : take)), change: what });
}

/** Takes a take off the kit; undo puts it back. */
export function removeTake(takeId: string): void {
  const { takes, openTakeId } = workbench.getState();
  const left = takes.filter(take => take.id !== takeId);
  const next = openTakeId === takeId ? left[0]?.id : openTakeId;
  workbench.setState({ takes: left, openTakeId: next, change: "deleted a take" });
}

export function undo(): void {
  workbench.temporal.getState().undo();
}

export function redo(): void {
  workbench.temporal.getState().redo();
}

/** What a kit compiles to: the program, or the last that worked while the kit is at fault. */
export interface Compiled {
  readonly program: Program | undefined;
  readonly faults: readonly Issue[];
  readonly warnings: readonly Issue[];
}

let compiledKit: Kit | undefined;
let compiled: Compiled = { program: undefined, faults: [], warnings: [] };

/** Compiles a kit, once for each version of it. While it has faults the last good program stays. */
export function compileOnce(kit: Kit | undefined): Compiled {
  if (kit === compiledKit) return compiled;
  const isOtherKit = kit?.id !== compiledKit?.id;
  compiledKit = kit;
  if (!kit) return (compiled = { program: undefined, faults: [], warnings: [] });
  const result = compileStaged(kit);
  compiled = result.ok
    ? { program: result.value, faults: [], warnings: result.warnings }
    : { program: isOtherKit ? undefined : compiled.program, faults: result.issues, warnings: [] };
  return compiled;
}

/** A take as a program understands it. */
export interface Evaluated {
  readonly program: Program;
  readonly take: Take;
  readonly columns: InputColumns;
  readonly trace: Trace;
  /** Where a runner's body stood after each frame, [x, y] in tiles; empty on other stages. */
  readonly track: Float32Array;
}

const evaluated = new WeakMap<Program, WeakMap<Take, Evaluated>>();

/** Runs a take through a program, once for each pair. */
export function evaluateOnce(program: Program, take: Take): Evaluated {
  let ofProgram = evaluated.get(program);
  if (!ofProgram) evaluated.set(program, (ofProgram = new WeakMap()));
  let found = ofProgram.get(take);
  if (!found) {
    const columns = readTake(program, take);
    ofProgram.set(take, (found = { program, take, columns, ...runOnStage(program, columns) }));
  }
  return found;
}
