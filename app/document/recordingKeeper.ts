import type { StoreApi } from "zustand/vanilla";
import type { Take } from "#core";
import type { Library } from "../storage/library";
import { joinRecordings, type RecordingChunk } from "../storage/recordings";
import type { Tabs } from "../storage/tabs";
import type { Notify } from "../ui/notices";
import type { OpenDocument } from "./openDocument";

/** A completed recording. */
export interface EndedRecording {
  readonly take: Take;
  /** A short description of the edit, for undo and the shelf. */
  readonly what: string;
  /**
   * Stores the last chunk, so that the recording is complete in storage; resolves to false if a chunk is
   * missing.
   */
  readonly finish: (whole: NonNullable<RecordingChunk["whole"]>) => Promise<boolean>;
  /** Marks its chunks as no longer in use. */
  readonly end: () => void;
}

/**
 * Keeps completed recordings: as a take here, through the tab that holds the pen, or in memory until one of
 * them is possible.
 */
export interface RecordingKeeper {
  readonly keep: (recording: EndedRecording) => Promise<void>;
  /** Keeps or offers the open kit's recordings that are stored in chunks and not in use by any tab. */
  readonly offer: () => Promise<void>;
  /** Returns whether any recording is only in memory. */
  readonly hasWaiting: () => boolean;
}

interface KeeperWorld {
  readonly library: Pick<Library, "listChunks" | "dropRecording" | "isStored">;
  readonly tabs: Pick<Tabs, "broadcast" | "isAlive">;
  readonly notify: Notify;
  readonly store: StoreApi<OpenDocument>;
  /** Adds a take by an edit and opens it; false if this tab may not edit. */
  readonly addTake: (take: Take, what: string) => boolean;
  /** Resolves when every edit so far is stored, or held in memory by the library. */
  readonly flush: () => Promise<void>;
  readonly putKitBack: () => void;
}

/** Creates the recording keeper of one page. */
export function createRecordingKeeper(world: KeeperWorld): RecordingKeeper {
  const { library, tabs, notify, store, addTake, flush } = world;
  /** Recordings that are not stored as a take anywhere this tab knows of, by id. */
  const waiting = new Map<string, EndedRecording>();
  const offered = new Set<string>();

  const isOpen = (kitId: string | undefined) => store.getState().kit?.id === kitId;
  const hasTake = (id: string) => store.getState().takes.some(take => take.id === id);

  /** Deletes the chunks of a take once the take is stored. */
  async function dropStoredChunks(take: Take): Promise<boolean> {
    await flush();
    if (!(await library.isStored(take.kit!, "takes", take.id))) return false;
    await library.dropRecording(take.kit!, take.id);
    return true;
  }

  function wholeOf({ name, note }: Take): NonNullable<RecordingChunk["whole"]> {
    return note === undefined ? { name } : { name, note };
  }

  /** Keeps a recording of the open kit as a take; its chunks remain until the take is stored. */
  async function takeUp(recording: EndedRecording): Promise<void> {
    const { take } = recording;
    waiting.delete(take.id);
    if (!(await dropStoredChunks(take))) await recording.finish(wholeOf(take));
    recording.end();
  }

  /**
   * Notifies where the recording is. `isStored`: whether all its chunks are stored; otherwise only this page
   * has it.
   */
  function sayWhere({ take }: EndedRecording, isStored: boolean): void {
    const { kit, holder } = store.getState();
    const name = isOpen(take.kit) ? kit!.name : "its kit";
    if (isOpen(take.kit) && holder === "gone")
      notify({
        tone: "trouble",
        title: `${take.name} was recorded, and ${name} was deleted meanwhile.`,
        details: ["Put the kit back to keep the recording with it, or save it as a file."],
        action: { label: "Put it back", run: world.putKitBack },
        other: { label: "Save it as a file", run: () => notify.saveRaw(`${take.name}.take`, take) },
      });
    else if (!isStored)
      notify({
        tone: "trouble",
        title: `${take.name} was recorded, and the browser does not keep it: this page alone has it.`,
        details: ["Save it as a file before you leave the page, or work on the kit here."],
        other: { label: "Save it as a file", run: () => notify.saveRaw(`${take.name}.take`, take) },
      });
    else
      notify({
        tone: "plain",
        title: `${take.name} is kept by the tab that works on ${name}.`,
        details: ["One tab writes at a time; this one shows what happens there."],
      });
  }

  async function keep(recording: EndedRecording): Promise<void> {
    const { take, what } = recording;
    const mayAdd = isOpen(take.kit) && store.getState().holder === "ours";
    if (mayAdd && addTake(take, what)) return takeUp(recording);
    waiting.set(take.id, recording);
    const isStored = await recording.finish(wholeOf(take));
    sayWhere(recording, isStored);
    recording.end();
    if (isStored) tabs.broadcast({ kind: "recorded", kitId: take.kit! });
  }

  /**
   * This tab now holds the pen: pending recordings become takes, unless the previous holder has kept them.
   */
  function takeUpWaiting(): void {
    for (const recording of [...waiting.values()]) {
      const { take, what } = recording;
      if (!isOpen(take.kit) || store.getState().holder !== "ours") continue;
      if (hasTake(take.id) || addTake(take, what)) void takeUp(recording);
    }
  }

  function offerCutOff(take: Take): void {
    if (offered.has(take.id)) return;
    offered.add(take.id);
    const seconds = (take.frames / take.rate).toFixed(1);
    notify({
      tone: "trouble",
      title: `A recording of ${seconds} s was cut off before it was kept.`,
      details: ["It is whole up to the last second before that."],
      action: {
        label: "Keep it as a take",
        run: () => {
          if (addTake(take, "kept a recording that was cut off")) void dropStoredChunks(take);
          else offered.delete(take.id);
        },
      },
      other: { label: "Delete it", run: () => void library.dropRecording(take.kit!, take.id) },
    });
  }

  async function offer(): Promise<void> {
    const kitId = store.getState().kit?.id;
    if (kitId === undefined) return;
    const chunks = await library.listChunks(kitId);
    const used = store.getState().takes.length;
    for (const { take, isWhole } of joinRecordings(kitId, chunks, n => `Cut off, take ${used + n + 1}`)) {
      // A complete recording is kept at once: its own tab may mark it as in use for a moment longer.
      if (!isWhole && (await tabs.isAlive(take.id))) continue;
      if (!isOpen(kitId) || store.getState().holder !== "ours") continue;
      if (hasTake(take.id)) void dropStoredChunks(take);
      else if (!isWhole) offerCutOff(take);
      else if (!waiting.has(take.id) && addTake(take, "kept a recording of another tab"))
        void dropStoredChunks(take);
    }
  }

  store.subscribe((now, before) => {
    if (waiting.size > 0 && now.holder === "ours" && (before.holder !== "ours" || now.kit !== before.kit))
      queueMicrotask(takeUpWaiting);
  });

  return { keep, offer, hasWaiting: () => waiting.size > 0 };
}
