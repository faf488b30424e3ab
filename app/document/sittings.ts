import type { StoreApi } from "zustand/vanilla";
import type { KeptKit, Library, WriteConflict } from "../storage/library";
import { isBroken, NO_PARTS, DEFAULT_SETTINGS, type Broken, type PartKey } from "../storage/records";
import { isUnread } from "../storage/status";
import type { Pen, PenHolder, Tabs } from "../storage/tabs";
import type { Notify } from "../ui/notices";
import { createAutosave, type Autosave, type Written } from "./autosave";
import { documentOf, NOTHING, stillOpen, type OpenDocument } from "./openDocument";

/**
 * The result of opening a kit. `unread`: the storage could not be read, so it is not known whether the kit
 * exists. `overtaken`: another kit was opened meanwhile. A kit that does not parse is returned raw.
 */
export type Opened = "opened" | "missing" | "unread" | "overtaken" | Broken;

/**
 * Opens kits from the shelf, one at a time, and keeps the open one in sync with it: stores edits, follows
 * other tabs, transfers the pen.
 */
export interface Sittings {
  /** Opens a kit, unless it is already open. */
  readonly open: (kitId: string) => Promise<Opened>;
  /** Stores pending changes and closes the open kit. */
  readonly close: () => Promise<void>;
  /** Resolves when every edit so far is stored, or held in memory by the library. */
  readonly flush: () => Promise<void>;
  /** Call when the page is being left: sets pending changes aside at once and returns the pen. */
  readonly leave: () => void;
  /** Call when a page that was left is shown again: requests the pen. */
  readonly comeBack: () => void;
  /**
   * Adds a listener that is called before the open kit is replaced or closed, while it can still be edited;
   * returns a function that removes it.
   */
  readonly onLeave: (listener: () => void) => () => void;
  /** Asks the tab that holds the pen for this kit to hand it over. */
  readonly takePen: () => void;
  /** Restores a kit that was removed from the shelf while open here, in its state here. */
  readonly putKitBack: () => void;
}

export interface SittingsWorld {
  readonly library: Library;
  readonly tabs: Tabs;
  readonly notify: Notify;
  /** The wall clock, ms since 1970. */
  readonly nowMs: () => number;
  readonly store: StoreApi<OpenDocument>;
  /** Clears the undo history, because the document was replaced and not edited. */
  readonly forgetPast: () => void;
  /** Keeps or offers recordings of the open kit that are stored in chunks. */
  readonly offerRecordings: () => Promise<void>;
}

/** An open kit in this tab, until another one replaces it. */
interface Sitting {
  readonly kitId: string;
  pen: Pen | undefined;
  autosave: Autosave | undefined;
  stopHearing: () => void;
  /** The document as it was when another kit replaced it, for a write that was in progress. */
  left: Written | undefined;
  isOver: boolean;
}

/** Creates the sittings of one workbench, over its store. */
export function createSittings(world: SittingsWorld): Sittings {
  const { library, tabs, notify, nowMs, store } = world;
  let sitting: Sitting | undefined;
  let asked = 0;
  const leaving = new Set<() => void>();
  /** Writes still in progress for kits that were closed, by kit. */
  const lastWrites = new Map<string, Promise<void>>();

  function readWritten(of: Sitting): Written | undefined {
    if (of !== sitting) return of.left;
    const state = store.getState();
    const document = documentOf(state);
    if (!document || document.kit.id !== of.kitId || state.holder === "gone") return undefined;
    const { settings, change, checkTally } = state;
    return { ...document, settings, change, checkTally };
  }

  /** Opens a stored document; the open take stays open if it still exists. */
  function show(kept: KeptKit, holder: PenHolder): void {
    const { openTakeId, takes } = store.getState();
    const place = takes.findIndex(take => take.id === openTakeId);
    const { record, document } = kept;
    store.setState({
      ...document,
      settings: record.rows,
      change: record.change,
      checkTally: record.checkTally,
      holder,
      openTakeId: stillOpen(document.takes, openTakeId, place),
    });
    world.forgetPast();
  }

  const written = ({ record, document }: KeptKit): Written => ({
    ...document,
    settings: record.rows,
    change: record.change,
    checkTally: record.checkTally,
  });

  /** Reloads the kit after another tab has stored it. */
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

  /** Handles the removal of the open kit from the shelf: stops storing and keeps the document. */
  function loseKit(of: Sitting): void {
    const document = documentOf(store.getState());
    if (of !== sitting || !document || store.getState().holder === "gone") return;
    store.setState({ holder: "gone" });
    notify({
      tone: "trouble",
      title: `${document.kit.name} was deleted in another tab.`,
      details: ["It is still shown here as it was, and can be put back."],
    });
  }

  async function putKitBack(of: Sitting): Promise<void> {
    // Every edit before the removal was stored, so a version that another tab restored is identical.
    const kept = await library.readKit(of.kitId);
    const document = documentOf(store.getState());
    if (of !== sitting || !document || !of.autosave) return;
    if (kept && !isBroken(kept)) {
      of.autosave.reset(written(kept));
      show(kept, "ours");
      return;
    }
    const nothing = { ...NO_PARTS, settings: DEFAULT_SETTINGS, change: "", checkTally: undefined };
    of.autosave.reset({ kit: document.kit, ...nothing });
    store.setState({ holder: "ours", kit: { ...document.kit }, change: "put back" });
    await of.autosave.flush();
  }

  /** Resolves a write conflict: keeps both versions and notifies. */
  async function resolveConflict(of: Sitting, second: WriteConflict): Promise<void> {
    if (second.state === "gone") return loseKit(of);
    let { added } = second;
    let kept = await library.readKit(of.kitId);
    for (let late = of.autosave?.takePending(); late; late = of.autosave?.takePending()) {
      added += await library.keepBoth(late);
      kept = await library.readKit(of.kitId);
    }
    if (!kept || isBroken(kept) || of !== sitting) return;
    of.autosave?.reset(written(kept));
    show(kept, store.getState().holder as PenHolder);
    if (added === 0) return;
    notify({
      tone: "trouble",
      title: `${kept.document.kit.name} was changed in two tabs at once. Both versions are kept.`,
      details: [
        "This page shows the version of the other tab. Yours is among the variants and takes, called “from another tab”.",
      ],
    });
  }

  function beginHearing(of: Sitting): () => void {
    const follow = createFollower(of);
    const stopTabs = tabs.subscribe(message => {
      if (message.kitId !== of.kitId) return;
      if (message.kind === "removed") loseKit(of);
      if (message.kind === "recorded" && store.getState().holder === "ours") void world.offerRecordings();
      if (message.kind === "written" && of.autosave?.isClean()) void follow(message.changed ?? []);
    });
    const stopSeconds = library.onConflict((kitId, second) => {
      if (kitId === of.kitId) void resolveConflict(of, second);
    });
    return () => {
      stopTabs();
      stopSeconds();
    };
  }

  function endSitting(of: Sitting): void {
    of.isOver = true;
    of.stopHearing();
    of.pen?.giveUp();
  }

  async function open(kitId: string): ReturnType<Sittings["open"]> {
    const ticket = ++asked;
    if (sitting?.kitId === kitId) return "opened";
    const next: Sitting = {
      kitId,
      pen: undefined,
      autosave: undefined,
      stopHearing: () => undefined,
      left: undefined,
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
    await lastWrites.get(kitId);
    const kept = await library.readKit(kitId);
    if (ticket !== asked || kept === undefined || isBroken(kept)) {
      endSitting(next);
      if (ticket !== asked) return "overtaken";
      if (kept !== undefined) return kept as Broken;
      return isUnread(library.status.getState()) ? "unread" : "missing";
    }
    const before = sitting;
    if (before) for (const onLeave of leaving) onLeave();
    if (before) {
      before.left = readWritten(before);
      const written = (before.autosave?.flush() ?? Promise.resolve()).finally(() => {
        endSitting(before);
        if (lastWrites.get(before.kitId) === written) lastWrites.delete(before.kitId);
      });
      lastWrites.set(before.kitId, written);
    }
    sitting = next;
    next.autosave = createAutosave(
      {
        library,
        nowMs,
        read: () => readWritten(next),
        onConflict: second => resolveConflict(next, second),
      },
      written(kept),
    );
    next.stopHearing = beginHearing(next);
    store.setState({ openTakeId: undefined, takes: [] });
    show(kept, holder);
    if (holder === "ours") void world.offerRecordings();
    if (kept.broken.length > 0) sayBroken(kept);
    return "opened";
  }

  function sayBroken({ document, broken }: KeptKit): void {
    notify({
      tone: "trouble",
      title: `Not everything of ${document.kit.name} could be read. The rest is open.`,
      details: broken.map(item => `${item.name}: ${item.reasons[0]}`),
      action: {
        label: "Save what could not be read",
        run: () =>
          notify.saveRaw(
            `${document.kit.name}, not read`,
            broken.map(item => item.raw),
          ),
      },
    });
  }

  /**
   * Handles the arrival or loss of the pen. Changes of other tabs are loaded before anything is stored here.
   */
  async function turn(of: Sitting, holder: PenHolder): Promise<void> {
    const known = documentOf(store.getState());
    if (!known || store.getState().holder === holder) return;
    if (holder === "theirs") {
      // The pen was taken while changes were pending: they are stored, or resolved as a conflict, before it
      // is given up.
      await of.autosave?.flush();
      if (of === sitting) store.setState({ holder });
      return;
    }
    // A page that was left while holding the pen may have set its last edit aside.
    await library.writeLeft();
    const kept = await library.readKit(of.kitId);
    if (of !== sitting) return;
    if (kept === undefined) return loseKit(of);
    if (isBroken(kept)) return;
    of.autosave?.reset(written(kept));
    show(kept, holder);
    void world.offerRecordings();
  }

  async function close(): Promise<void> {
    asked++;
    const before = sitting;
    if (!before) return;
    for (const onLeave of leaving) onLeave();
    await before.autosave?.flush();
    if (sitting !== before) return;
    sitting = undefined;
    endSitting(before);
    store.setState({ ...NOTHING, holder: "ours" });
    world.forgetPast();
  }

  async function flush(): Promise<void> {
    await sitting?.autosave?.flush();
  }

  store.subscribe(() => sitting?.autosave?.touch());

  return {
    open,
    close,
    flush,
    leave() {
      sitting?.autosave?.leave();
      void sitting?.autosave?.flush();
      sitting?.pen?.pause();
    },
    comeBack: () => sitting?.pen?.resume(),
    onLeave(listener) {
      leaving.add(listener);
      return () => void leaving.delete(listener);
    },
    takePen: () => sitting?.pen?.take(),
    putKitBack: () => void (sitting && putKitBack(sitting)),
  };
}
