import { temporal } from "zundo";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { Check, Kit, Layout, Take } from "#core";
import { putBack } from "../edits/putBack";
import { freeName, nextTakeNumber } from "../edits/takeNames";
import type { Library } from "../storage/library";
import { PART_LISTS, type CheckTally, type KitDocument, type KitSettings } from "../storage/records";
import type { Tabs } from "../storage/tabs";
import type { Notify } from "../ui/notices";
import { createHistory, type CloseListener, type UndoStep } from "./history";
import { documentOf, NOTHING, stillOpen, type OpenDocument } from "./openDocument";
import { createRecordingKeeper, type RecordingKeeper } from "./recordingKeeper";
import { findRename, renameInSettings } from "./renames";
import { createSittings, type Sittings } from "./sittings";
import { whyRefused } from "./whyRefused";

/** An edit that can be reverted separately, whatever was done since: the document before and after it. */
export interface Edit {
  readonly before: KitDocument;
  readonly after: KitDocument;
}

type Lists = Omit<KitDocument, "kit">;

export interface Workbench
  extends Pick<StoreApi<OpenDocument>, "getState" | "getInitialState" | "subscribe">, Sittings {
  readonly history: StoreApi<{ pastStates: readonly unknown[]; futureStates: readonly unknown[] }>;
  /** Returns whether this tab may edit the open kit; if not, notifies why and offers a way out. */
  readonly mayEdit: () => boolean;
  /**
   * Changes the document. `what` is a short description. Returns undefined if nothing was, or may be,
   * changed.
   */
  readonly edit: (what: string, edit: (document: KitDocument) => KitDocument) => Edit | undefined;
  readonly editKit: (what: string, edit: (kit: Kit) => Kit) => Edit | undefined;
  readonly editTake: (what: string, takeId: string, edit: (take: Take) => Take) => Edit | undefined;
  readonly editLayouts: (
    what: string,
    edit: (layouts: readonly Layout[]) => readonly Layout[],
  ) => Edit | undefined;
  readonly editChecks: (
    what: string,
    edit: (checks: readonly Check[], document: KitDocument) => readonly Check[],
  ) => Edit | undefined;
  /** Reverts exactly one edit, whatever was done since; itself an edit. */
  readonly putBack: (what: string, edit: Edit) => void;
  /**
   * Adds a take and opens it; `what` describes its origin. A duplicate name gets a number. Returns false if
   * this tab may not edit.
   */
  readonly addTake: (take: Take, what?: string) => boolean;
  /** Keeps a completed recording, whichever tab holds the pen. */
  readonly keepRecording: RecordingKeeper["keep"];
  /** Returns whether a recording is only in memory. */
  readonly hasWaitingRecording: () => boolean;
  /** Returns a name for a recording that no take of the kit ever had, and reserves it. */
  readonly nameRecording: () => string;
  /**
   * Limits undo to the current state while something is recorded. Returns a function that lifts the limit.
   */
  readonly guardPast: () => () => void;
  readonly removeTake: (takeId: string) => Edit | undefined;
  readonly openTake: (takeId: string) => void;
  /** Stores the current rules under a name, for comparison. */
  readonly keepVariant: (id: string, name: string) => void;
  readonly removeVariant: (id: string) => Edit | undefined;
  /** Restores a variant's rules as one step of undo. */
  readonly takeUpVariant: (id: string) => void;
  /** Changes the settings stored beside the kit; not a step of undo. */
  readonly updateKitSettings: (change: (rows: KitSettings) => KitSettings) => void;
  /** Stores the result of the checks with the present rules and takes, for the shelf. */
  readonly keepCheckTally: (checkTally: CheckTally) => void;
  /**
   * Begins a step of undo that can make many edits through its `run`; `onClosed` is called if it is closed
   * from outside.
   */
  readonly beginStep: (onClosed?: CloseListener) => UndoStep;
  /** Closes the open step, if any, because another view is shown. Its edits stay as one step. */
  readonly closeStep: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
}

export interface WorkbenchWorld {
  readonly library: Library;
  readonly tabs: Tabs;
  readonly notify: Notify;
  /** The wall clock, ms since 1970. */
  readonly nowMs: () => number;
}

const HISTORY = 500;

/** The part of the open document that undo restores, with the words of its last change. */
type Past = Pick<OpenDocument, "kit" | keyof Lists | "change">;

const pastOf = ({ kit, takes, variants, layouts, checks, change }: OpenDocument): Past => ({
  kit,
  takes,
  variants,
  layouts,
  checks,
  change,
});

/** The part of the open document on which the result of its checks depends. */
type Judged = Pick<OpenDocument, "kit" | "takes" | "checks">;

/** Returns the change of state that forgets the result of the checks, if a document follows on which it may be another. */
function resetTally(before: Judged, after: Judged): { readonly checkTally?: undefined } {
  const isStill = before.kit === after.kit && before.takes === after.takes && before.checks === after.checks;
  return isStill ? {} : { checkTally: undefined };
}

/** Returns the change of the settings beside a kit if an item has another id in the state that follows. */
function followRename(settings: KitSettings, before: Kit, after: Kit): { readonly settings?: KitSettings } {
  const rename = before === after ? undefined : findRename(before, after);
  return rename ? { settings: renameInSettings(settings, rename) } : {};
}

/** Creates an empty workbench. */
export function createWorkbench({ library, tabs, notify, nowMs }: WorkbenchWorld): Workbench {
  const store = createStore<OpenDocument>()(
    temporal((): OpenDocument => ({ ...NOTHING, holder: "ours" }), {
      partialize: pastOf,
      equality: (past, now) => past.kit === now.kit && PART_LISTS.every(list => past[list] === now[list]),
      limit: HISTORY,
    }),
  );
  const history = createHistory<Past>(
    store.temporal as unknown as Parameters<typeof createHistory<Past>>[0],
    () => pastOf(store.getState()),
  );
  /** The last recorded state when a recording began. */
  let guarded: { readonly last: unknown } | undefined;
  const sittings = createSittings({
    library,
    tabs,
    notify,
    nowMs,
    store,
    forgetPast: () => history.clear(),
    offerRecordings: () => keeper.offer(),
  });
  const keeper = createRecordingKeeper({
    library,
    tabs,
    notify,
    store,
    addTake: (take, what) => bench.addTake(take, what),
    flush: sittings.flush,
    putKitBack: sittings.putKitBack,
  });

  /** Notifies why nothing was changed, with a way out. */
  function refuse(): undefined {
    const { kit, holder } = store.getState();
    if (!kit) return undefined;
    if (holder === "gone")
      notify({
        tone: "trouble",
        title: `${kit.name} is not on the shelf any more.`,
        details: ["Put it back to go on working on it."],
        action: { label: "Put it back", run: sittings.putKitBack },
      });
    else
      notify({
        tone: "trouble",
        title: `${kit.name} is being worked on in another tab.`,
        details: ["This one shows what happens there. One tab writes at a time."],
        action: { label: "Work on it here", run: sittings.takePen },
      });
    return undefined;
  }

  function edit(what: string, change: (document: KitDocument) => KitDocument): Edit | undefined {
    if (store.getState().kit && store.getState().holder !== "ours") return refuse();
    history.editing();
    const before = documentOf(store.getState());
    if (!before) return undefined;
    const after = change(before);
    if (after.kit === before.kit && PART_LISTS.every(list => after[list] === before[list])) return undefined;
    const reason = whyRefused(before, after);
    if (reason) {
      notify({ tone: "trouble", title: "Nothing was changed.", details: [`${reason}.`] });
      return undefined;
    }
    const { openTakeId } = store.getState();
    const place = before.takes.findIndex(take => take.id === openTakeId);
    store.setState({
      ...after,
      ...followRename(store.getState().settings, before.kit, after.kit),
      ...resetTally(before, after),
      change: what,
      openTakeId: stillOpen(after.takes, openTakeId, place),
    });
    history.edited();
    return { before, after };
  }

  const editList = <L extends keyof Lists>(
    list: L,
    what: string,
    change: (items: Lists[L], document: KitDocument) => Lists[L],
  ) => edit(what, document => ({ ...document, [list]: change(document[list], document) }));

  /** Steps through the history; a take that no longer exists is closed. */
  function travel(way: "undo" | "redo"): void {
    if (store.getState().holder !== "ours") return void refuse();
    if (history.close("travel")) return;
    if (way === "undo" && guarded && store.temporal.getState().pastStates.at(-1) === guarded.last)
      return notify({
        tone: "plain",
        title: "Nothing was edited since the recording began.",
        details: ["What was done before it can be undone when it has ended."],
      });
    const { kit, settings, takes, openTakeId } = store.getState();
    const place = takes.findIndex(take => take.id === openTakeId);
    const { pastStates, futureStates } = store.temporal.getState();
    const aim = (way === "undo" ? pastStates : futureStates).at(-1);
    if (!aim) return;
    const past = aim as Past;
    store.setState({
      ...resetTally(store.getState(), past),
      ...(kit && past.kit ? followRename(settings, kit, past.kit) : {}),
    });
    store.temporal.getState()[way]();
    const now = store.getState();
    const still = stillOpen(now.takes, openTakeId, place);
    if (still !== now.openTakeId) store.setState({ openTakeId: still });
  }

  const bench: Workbench = {
    getState: store.getState,
    getInitialState: store.getInitialState,
    subscribe: store.subscribe,
    history: store.temporal as unknown as Workbench["history"],
    ...sittings,
    mayEdit: () => store.getState().holder === "ours" || refuse() !== undefined,
    edit,
    editKit: (what, change) => edit(what, document => ({ ...document, kit: change(document.kit) })),
    editTake: (what, takeId, change) =>
      editList("takes", what, takes => takes.map(take => (take.id === takeId ? change(take) : take))),
    editLayouts: (what, change) => editList("layouts", what, change),
    editChecks: (what, change) => editList("checks", what, change),
    putBack(what, { before, after }) {
      edit(what, now => putBack(before, after, now));
    },
    addTake(take, what = `recorded ${take.name}`) {
      const name = freeName(store.getState().takes, take.name);
      const named = name === take.name ? take : { ...take, name };
      if (!editList("takes", what, takes => [...takes, named])) return false;
      bench.openTake(take.id);
      return true;
    },
    keepRecording: keeper.keep,
    hasWaitingRecording: keeper.hasWaiting,
    nameRecording() {
      const { takes, settings } = store.getState();
      const takeNumber = nextTakeNumber(takes, settings.takeNumber);
      if (store.getState().holder === "ours")
        bench.updateKitSettings(settings => ({ ...settings, takeNumber }));
      return `Take ${takeNumber}`;
    },
    guardPast() {
      const guard = { last: store.temporal.getState().pastStates.at(-1) };
      guarded = guard;
      return () => {
        if (guarded === guard) guarded = undefined;
      };
    },
    removeTake: takeId =>
      editList("takes", "deleted a take", takes => takes.filter(take => take.id !== takeId)),
    openTake(takeId) {
      if (takeId !== store.getState().openTakeId) history.close("other");
      store.setState({ openTakeId: takeId });
    },
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
    updateKitSettings(change) {
      store.setState(({ settings }) => ({ settings: change(settings) }));
    },
    keepCheckTally: checkTally => store.setState({ checkTally }),
    beginStep: onClosed =>
      history.begin(past => store.setState({ ...past, ...resetTally(store.getState(), past) }), onClosed),
    closeStep: () => void history.close("other"),
    undo: () => travel("undo"),
    redo: () => travel("redo"),
  };
  return bench;
}
