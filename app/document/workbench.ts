import { temporal } from "zundo";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { Kit, Layout, Take } from "#core";
import { putBack } from "../edits/putBack";
import type { KitChange } from "../storage/kitWrite";
import type { KeptKit, Library } from "../storage/library";
import {
  isBroken,
  NO_PARTS,
  PART_LISTS,
  PLAIN_ROWS,
  type Broken,
  type KitDocument,
  type PartKey,
  type RowOrder,
} from "../storage/records";
import { joinRecordings } from "../storage/recordings";
import type { Pen, PenHolder, Tabs } from "../storage/tabs";
import type { Say } from "../ui/notices";
import { createAutosave, type Autosave, type Written } from "./autosave";
import { createHistory, type UndoStep } from "./history";

/** The document under work: a kit with all that is kept beside it. Undo and redo go over all of it together. */
export interface OpenDocument extends Omit<KitDocument, "kit"> {
  readonly kit: Kit | undefined;
  /** How the tape's rows are laid out: kept with the kit, not undone. */
  readonly rows: RowOrder;
  readonly openTakeId: string | undefined;
  /** What was changed last, for the shelf. */
  readonly change: string;
  /** Who may write: this tab, another that has the kit open too, or nobody, since it has left the shelf. */
  readonly holder: PenHolder | "gone";
}

/** An edit that can be taken back by itself, whatever was done since: the document around it. */
export interface Edit {
  readonly before: KitDocument;
  readonly after: KitDocument;
}

type Lists = Omit<KitDocument, "kit">;

export interface Workbench extends Pick<
  StoreApi<OpenDocument>,
  "getState" | "getInitialState" | "subscribe"
> {
  readonly history: StoreApi<{ pastStates: readonly unknown[]; futureStates: readonly unknown[] }>;
  /**
   * Opens a kit from the shelf, unless it is open already. `overtaken`: another was asked for meanwhile. What could not
   * be read is given as it is.
   */
  readonly open: (kitId: string) => Promise<"opened" | "missing" | "overtaken" | Broken>;
  /** Writes what is unwritten and lets go of the open kit. */
  readonly close: () => Promise<void>;
  /** Keeps its promise when everything edited until now is written, or held by the library. */
  readonly flush: () => Promise<void>;
  /** The page is being left: what is not yet written is set aside at once. */
  readonly leave: () => void;
  /** Hears that the open kit is about to be left for another or none, while it can still be edited. */
  readonly onLeave: (listener: () => void) => () => void;
  /** May this tab edit the open kit? Where not, it is said why, with the way out. */
  readonly mayEdit: () => boolean;
  /** Asks the tab that writes this kit to hand the pen over. */
  readonly takePen: () => void;
  /** Changes the document. `what` says in a few words what was done. Undefined where nothing was, or may be, changed. */
  readonly edit: (what: string, edit: (document: KitDocument) => KitDocument) => Edit | undefined;
  readonly editKit: (what: string, edit: (kit: Kit) => Kit) => Edit | undefined;
  readonly editTake: (what: string, takeId: string, edit: (take: Take) => Take) => Edit | undefined;
  readonly editLayouts: (
    what: string,
    edit: (layouts: readonly Layout[]) => readonly Layout[],
  ) => Edit | undefined;
  /** Takes exactly one edit back, whatever was done since; this is an edit too. */
  readonly putBack: (what: string, edit: Edit) => void;
  /** Adds a take and opens it. `what` says in a few words how it came about. */
  readonly addTake: (take: Take, what?: string) => void;
  readonly removeTake: (takeId: string) => Edit | undefined;
  readonly openTake: (takeId: string) => void;
  /** Keeps the present rules under a name, to lay other versions beside. */
  readonly keepVariant: (id: string, name: string) => void;
  readonly removeVariant: (id: string) => Edit | undefined;
  /** Takes a variant's rules up again; what stood before is a step of undo away. */
  readonly takeUpVariant: (id: string) => void;
  /** Lays the tape's rows out anew; kept with the kit, no step of undo. */
  readonly arrangeTape: (change: (rows: RowOrder) => RowOrder) => void;
  readonly beginStep: () => UndoStep;
  readonly undo: () => void;
  readonly redo: () => void;
}

export interface WorkbenchWorld {
  readonly library: Library;
  readonly tabs: Tabs;
  readonly say: Say;
  /** The time on the wall, ms since 1970. */
  readonly nowMs: () => number;
}

const HISTORY = 500;

/** An open kit in this tab, until another is opened in its place. */
interface Sitting {
  readonly kitId: string;
  pen: Pen | undefined;
  autosave: Autosave | undefined;
  stopHearing: () => void;
  isOver: boolean;
}

const NOTHING: Omit<OpenDocument, "holder"> = {
  ...NO_PARTS,
  kit: undefined,
  rows: PLAIN_ROWS,
  openTakeId: undefined,
  change: "",
};

/** The part of the state that is undone, or undefined while nothing is open. */
function documentOf({ kit, takes, variants, layouts }: OpenDocument): KitDocument | undefined {
  return kit && { kit, takes, variants, layouts };
}

/** The take to look at: the one that was open, the one in its place, or the last. */
function stillOpen(
  takes: readonly Take[],
  openTakeId: string | undefined,
  place: number,
): string | undefined {
  if (takes.some(take => take.id === openTakeId)) return openTakeId;
  return (takes[Math.max(0, place)] ?? takes.at(-1))?.id;
}

/** Makes a workbench with nothing on it. */
export function createWorkbench({ library, tabs, say, nowMs }: WorkbenchWorld): Workbench {
  const store = createStore<OpenDocument>()(
    temporal((): OpenDocument => ({ ...NOTHING, holder: "ours" }), {
      partialize: ({ kit, takes, variants, layouts }) => ({ kit, takes, variants, layouts }),
      equality: (past, now) => past.kit === now.kit && PART_LISTS.every(list => past[list] === now[list]),
      limit: HISTORY,
    }),
  );
  type Past = Pick<OpenDocument, "kit" | keyof Lists>;
  const readPast = (): Past => {
    const { kit, takes, variants, layouts } = store.getState();
    return { kit, takes, variants, layouts };
  };
  const history = createHistory<Past>(
    store.temporal as unknown as Parameters<typeof createHistory<Past>>[0],
    readPast,
  );
  let sitting: Sitting | undefined;
  let asked = 0;
  const leaving = new Set<() => void>();

  function readWritten(of: Sitting): Written | undefined {
    const state = store.getState();
    const document = documentOf(state);
    if (of !== sitting || !document || document.kit.id !== of.kitId || state.holder === "gone")
      return undefined;
    return { ...document, rows: state.rows, change: state.change };
  }

  /** Puts what was read on the bench; the open take stays open where it is still there. */
  function show(kept: KeptKit, holder: PenHolder): void {
    const { openTakeId, takes } = store.getState();
    const place = takes.findIndex(take => take.id === openTakeId);
    const { record, document } = kept;
    store.setState({
      ...document,
      rows: record.rows,
      change: record.change,
      holder,
      openTakeId: stillOpen(document.takes, openTakeId, place),
    });
    history.clear();
  }

  const written = ({ record, document }: KeptKit): Written => ({
    ...document,
    rows: record.rows,
    change: record.change,
  });

  /** Reads the kit again as another tab has written it. */
  function createFollower(of: Sitting) {
    let isReading = false;
    let changed: PartKey[] | undefined;
    return async function follow(more: readonly PartKey[]): Promise<void> {
      changed = [...(changed ?? []), ...more];
      if (isReading) return;
      isReading = true;
      while (changed) {
        const keys = changed;
        changed = undefined;
        const known = documentOf(store.getState());
        const kept = known && of === sitting ? await library.readAgain(known, keys) : undefined;
        if (!kept || of !== sitting || store.getState().holder === "gone") continue;
        of.autosave?.reset(written(kept));
        show(kept, store.getState().holder as PenHolder);
      }
      isReading = false;
    };
  }

  /** The kit has left the shelf while it is open here: nothing is written any more, and nothing on the bench is lost. */
  function loseKit(of: Sitting): void {
    const document = documentOf(store.getState());
    if (of !== sitting || !document || store.getState().holder === "gone") return;
    store.setState({ holder: "gone" });
    say({
      tone: "trouble",
      title: `${document.kit.name} was deleted in another tab.`,
      details: ["It still stands here as it was. Nothing you change now is kept, unless you put it back."],
      action: { label: "Put it back", run: () => void putKitBack(of) },
    });
  }

  async function putKitBack(of: Sitting): Promise<void> {
    const document = documentOf(store.getState());
    if (of !== sitting || !document || !of.autosave) return;
    of.autosave.reset({ kit: document.kit, ...NO_PARTS, rows: PLAIN_ROWS, change: "" });
    store.setState({ holder: "ours", kit: { ...document.kit }, change: "put back" });
    await of.autosave.flush();
  }

  /** Another tab wrote while this one did too: both versions are kept, and it is said. */
  async function comeSecond(of: Sitting, change: KitChange, state: "changed" | "gone"): Promise<void> {
    if (state === "gone") return loseKit(of);
    const added = await library.keepBoth(change);
    const kept = await library.readKit(of.kitId);
    if (!kept || isBroken(kept) || of !== sitting) return;
    of.autosave?.reset(written(kept));
    show(kept, store.getState().holder as PenHolder);
    if (added === 0) return;
    say({
      tone: "trouble",
      title: `${kept.document.kit.name} was changed in two tabs at once. Both versions are kept.`,
      details: [
        "What the other tab wrote stands here. What you changed is among the variants and takes, called “from another tab”.",
      ],
    });
  }

  function beginHearing(of: Sitting): () => void {
    const follow = createFollower(of);
    const stopTabs = tabs.hear(message => {
      if (message.kitId !== of.kitId) return;
      if (message.kind === "removed") loseKit(of);
      if (message.kind === "written" && of.autosave?.isClean()) void follow(message.changed ?? []);
    });
    const stopSeconds = library.onSecond((write, state) => {
      if (write.kitId === of.kitId) void comeSecond(of, write, state);
    });
    return () => {
      stopTabs();
      stopSeconds();
    };
  }

  /** Recordings that were cut off, by a crash or a killed browser, are offered as takes. */
  async function offerCutOff(of: Sitting): Promise<void> {
    const chunks = await library.listChunks(of.kitId);
    if (of !== sitting || chunks.length === 0) return;
    const used = store.getState().takes.length;
    const found = joinRecordings(of.kitId, chunks, n => `Cut off, take ${used + n + 1}`);
    const forget = (take: Take) => library.dropRecording(of.kitId, take.id);
    for (const take of found) {
      const seconds = (take.frames / take.rate).toFixed(1);
      say({
        tone: "trouble",
        title: `A recording of ${seconds} s was cut off before it was kept.`,
        details: ["It is whole up to the last second before that."],
        action: {
          label: "Keep it as a take",
          run: () => {
            bench.addTake(take, `kept a recording that was cut off`);
            void bench.flush().then(() => forget(take));
          },
        },
        other: { label: "Let it go", run: () => void forget(take) },
      });
    }
  }

  function endSitting(of: Sitting): void {
    of.isOver = true;
    of.stopHearing();
    of.pen?.giveUp();
  }

  async function open(kitId: string): ReturnType<Workbench["open"]> {
    const ticket = ++asked;
    if (sitting?.kitId === kitId) return "opened";
    const next: Sitting = {
      kitId,
      pen: undefined,
      autosave: undefined,
      stopHearing: () => undefined,
      isOver: false,
    };
    let holder: PenHolder = "ours";
    next.pen = await tabs.askForPen(
      kitId,
      now => {
        holder = now;
        if (next === sitting && store.getState().holder !== "gone") void turn(next, now);
      },
      async () => {
        if (next === sitting) await next.autosave?.flush();
      },
    );
    const kept = await library.readKit(kitId);
    if (ticket !== asked || kept === undefined || isBroken(kept)) {
      endSitting(next);
      return ticket !== asked ? "overtaken" : kept === undefined ? "missing" : (kept as Broken);
    }
    const before = sitting;
    if (before) for (const hear of leaving) hear();
    const flushed = before?.autosave?.flush();
    sitting = next;
    next.autosave = createAutosave(
      {
        library,
        nowMs,
        read: () => readWritten(next),
        onSecond: (change, state) => void comeSecond(next, change, state),
      },
      written(kept),
    );
    next.stopHearing = beginHearing(next);
    store.setState({ openTakeId: undefined, takes: [] });
    show(kept, holder);
    if (before) void Promise.resolve(flushed).finally(() => endSitting(before));
    if (holder === "ours") void offerCutOff(next);
    if (kept.broken.length > 0) sayBroken(kept);
    return "opened";
  }

  function sayBroken({ document, broken }: KeptKit): void {
    say({
      tone: "trouble",
      title: `Not everything of ${document.kit.name} could be read. The rest is open.`,
      details: broken.map(item => `${item.name}: ${item.reasons[0]}`),
      action: {
        label: "Save what could not be read",
        run: () =>
          say.saveRaw(
            `${document.kit.name}, not read`,
            broken.map(item => item.raw),
          ),
      },
    });
  }

  /** The pen has come or gone. What another tab wrote meanwhile is read before anything is written here. */
  async function turn(of: Sitting, holder: PenHolder): Promise<void> {
    const known = documentOf(store.getState());
    if (!known || store.getState().holder === holder) return;
    if (holder === "theirs") {
      // Taken over while something was unwritten: it is written, or comes second, before the pen is down.
      await of.autosave?.flush();
      if (of === sitting) store.setState({ holder });
      return;
    }
    const kept = await library.readKit(of.kitId);
    if (of !== sitting) return;
    if (kept === undefined) return loseKit(of);
    if (isBroken(kept)) return;
    of.autosave?.reset(written(kept));
    show(kept, holder);
    void offerCutOff(of);
  }

  /** Says why nothing was changed, with the way out of it. */
  function refuse(): undefined {
    const { kit, holder } = store.getState();
    if (!kit) return undefined;
    if (holder === "gone" && sitting) {
      const of = sitting;
      say({
        tone: "trouble",
        title: `${kit.name} is not on the shelf any more.`,
        details: ["Put it back to go on working on it."],
        action: { label: "Put it back", run: () => void putKitBack(of) },
      });
    } else
      say({
        tone: "trouble",
        title: `${kit.name} is being worked on in another tab.`,
        details: ["This one shows what happens there. One tab writes at a time."],
        action: { label: "Work on it here", run: bench.takePen },
      });
    return undefined;
  }

  function edit(what: string, change: (document: KitDocument) => KitDocument): Edit | undefined {
    const before = documentOf(store.getState());
    if (!before) return undefined;
    if (store.getState().holder !== "ours") return refuse();
    const after = change(before);
    if (after.kit === before.kit && PART_LISTS.every(list => after[list] === before[list])) return undefined;
    const { openTakeId } = store.getState();
    const place = before.takes.findIndex(take => take.id === openTakeId);
    store.setState({ ...after, change: what, openTakeId: stillOpen(after.takes, openTakeId, place) });
    history.edited();
    return { before, after };
  }

  const editList = <L extends keyof Lists>(
    list: L,
    what: string,
    change: (items: Lists[L], document: KitDocument) => Lists[L],
  ) => edit(what, document => ({ ...document, [list]: change(document[list], document) }));

  /** Goes through the past; a take that is not there any more is not open either. */
  function travel(way: "undo" | "redo"): void {
    if (store.getState().holder !== "ours") return void refuse();
    const { takes, openTakeId } = store.getState();
    const place = takes.findIndex(take => take.id === openTakeId);
    store.temporal.getState()[way]();
    const now = store.getState();
    const still = stillOpen(now.takes, openTakeId, place);
    if (still !== now.openTakeId) store.setState({ openTakeId: still });
  }

  store.subscribe(() => sitting?.autosave?.touch());

  const bench: Workbench = {
    getState: store.getState,
    getInitialState: store.getInitialState,
    subscribe: store.subscribe,
    history: store.temporal as unknown as Workbench["history"],
    open,
    async close() {
      asked++;
      const before = sitting;
      if (!before) return;
      for (const hear of leaving) hear();
      await before.autosave?.flush();
      if (sitting !== before) return;
      sitting = undefined;
      endSitting(before);
      store.setState({ ...NOTHING, holder: "ours" });
      history.clear();
    },
    async flush() {
      await sitting?.autosave?.flush();
    },
    leave: () => sitting?.autosave?.leave(),
    onLeave(listener) {
      leaving.add(listener);
      return () => void leaving.delete(listener);
    },
    mayEdit: () => store.getState().holder === "ours" || refuse() !== undefined,
    takePen: () => sitting?.pen?.take(),
    edit,
    editKit: (what, change) => edit(what, document => ({ ...document, kit: change(document.kit) })),
    editTake: (what, takeId, change) =>
      editList("takes", what, takes => takes.map(take => (take.id === takeId ? change(take) : take))),
    editLayouts: (what, change) => editList("layouts", what, change),
    putBack(what, { before, after }) {
      edit(what, now => putBack(before, after, now));
    },
    addTake(take, what = `recorded ${take.name}`) {
      if (editList("takes", what, takes => [...takes, take])) bench.openTake(take.id);
    },
    removeTake: takeId =>
      editList("takes", "deleted a take", takes => takes.filter(take => take.id !== takeId)),
    openTake: takeId => store.setState({ openTakeId: takeId }),
    keepVariant(id, name) {
      editList("variants", `kept variant ${name}`, (variants, { kit }) => [...variants, { id, name, kit }]);
    },
    removeVariant: id =>
      editList("variants", "forgot a variant", variants => variants.filter(variant => variant.id !== id)),
    takeUpVariant(id) {
      const found = store.getState().variants.find(variant => variant.id === id);
      if (found)
        bench.editKit(`took up variant ${found.name}`, kit => ({ ...found.kit, id: kit.id, name: kit.name }));
    },
    arrangeTape(change) {
      store.setState(({ rows }) => ({ rows: change(rows) }));
    },
    beginStep: () => history.begin(past => store.setState(past)),
    undo: () => travel("undo"),
    redo: () => travel("redo"),
  };
  return bench;
}
