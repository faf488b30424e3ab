import type { StoreApi } from "zustand/vanilla";
import type { Take } from "#core";
import type { Library } from "../storage/library";
import { joinRecordings, type RecordingChunk } from "../storage/recordings";
import type { Tabs } from "../storage/tabs";
import type { Say } from "../ui/notices";
import type { OpenDocument } from "./openDocument";

/** A recording that has come to its end. */
export interface EndedRecording {
  readonly take: Take;
  /** The edit in a few words, for undo and the shelf. */
  readonly what: string;
  /** Writes its last piece, so that it is whole in storage; resolves to false where a piece is missing. */
  readonly finish: (whole: NonNullable<RecordingChunk["whole"]>) => Promise<boolean>;
  /** Its pieces are not in work any more. */
  readonly end: () => void;
}

/** Sees to it that a recording that ends is kept: as a take here, by the tab with the pen, or held until it can be. */
export interface RecordingKeeper {
  readonly keep: (recording: EndedRecording) => Promise<void>;
  /** Keeps or offers the recordings of the open kit that are in storage in pieces and not alive in any tab. */
  readonly offer: () => Promise<void>;
  /** Is any recording held in memory alone? */
  readonly hasWaiting: () => boolean;
}

interface KeeperWorld {
  readonly library: Pick<Library, "listChunks" | "dropRecording" | "isStored">;
  readonly tabs: Pick<Tabs, "tell" | "isAlive">;
  readonly say: Say;
  readonly store: StoreApi<OpenDocument>;
  /** Adds a take by an edit and opens it; false where this tab may not edit. */
  readonly addTake: (take: Take, what: string) => boolean;
  /** Resolves when everything edited until now is written, or held by the library. */
  readonly flush: () => Promise<void>;
  readonly putKitBack: () => void;
}

/** Creates the keeper of one page. */
export function createRecordingKeeper(world: KeeperWorld): RecordingKeeper {
  const { library, tabs, say, store, addTake, flush } = world;
  /** Recordings that are no take in any storage that this tab knows of, by id. */
  const waiting = new Map<string, EndedRecording>();
  const offered = new Set<string>();

  const isOpen = (kitId: string | undefined) => store.getState().kit?.id === kitId;
  const hasTake = (id: string) => store.getState().takes.some(take => take.id === id);

  /** Drops the pieces of a take once it is in storage itself. */
  async function settle(take: Take): Promise<boolean> {
    await flush();
    if (!(await library.isStored(take.kit!, "takes", take.id))) return false;
    await library.dropRecording(take.kit!, take.id);
    return true;
  }

  function wholeOf({ name, note }: Take): NonNullable<RecordingChunk["whole"]> {
    return note === undefined ? { name } : { name, note };
  }

  /** Takes a recording of the open kit up as a take; what the storage does not have yet stays in pieces there. */
  async function takeUp(recording: EndedRecording): Promise<void> {
    const { take } = recording;
    waiting.delete(take.id);
    if (!(await settle(take))) await recording.finish(wholeOf(take));
    recording.end();
  }

  /** `isStored`: are all its pieces in storage? Else this page alone has it. */
  function sayWhere({ take }: EndedRecording, isStored: boolean): void {
    const { kit, holder } = store.getState();
    const name = isOpen(take.kit) ? kit!.name : "its kit";
    if (isOpen(take.kit) && holder === "gone")
      say({
        tone: "trouble",
        title: `${take.name} was recorded, and ${name} was deleted meanwhile.`,
        details: ["Put the kit back to keep the recording with it, or save it as a file."],
        action: { label: "Put it back", run: world.putKitBack },
        other: { label: "Save it as a file", run: () => say.saveRaw(`${take.name}.take`, take) },
      });
    else if (!isStored)
      say({
        tone: "trouble",
        title: `${take.name} was recorded, and the browser does not keep it: this page alone has it.`,
        details: ["Save it as a file before you leave the page, or work on the kit here."],
        other: { label: "Save it as a file", run: () => say.saveRaw(`${take.name}.take`, take) },
      });
    else
      say({
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
    if (isStored) tabs.tell({ kind: "recorded", kitId: take.kit! });
    recording.end();
  }

  /** The pen has come: what waits for it is a take now, unless the tab that had it has kept it. */
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
    say({
      tone: "trouble",
      title: `A recording of ${seconds} s was cut off before it was kept.`,
      details: ["It is whole up to the last second before that."],
      action: {
        label: "Keep it as a take",
        run: () => {
          if (addTake(take, "kept a recording that was cut off")) void settle(take);
          else offered.delete(take.id);
        },
      },
      other: { label: "Let it go", run: () => void library.dropRecording(take.kit!, take.id) },
    });
  }

  async function offer(): Promise<void> {
    const kitId = store.getState().kit?.id;
    if (kitId === undefined) return;
    const chunks = await library.listChunks(kitId);
    const used = store.getState().takes.length;
    for (const { take, isWhole } of joinRecordings(kitId, chunks, n => `Cut off, take ${used + n + 1}`)) {
      if ((await tabs.isAlive(take.id)) || !isOpen(kitId) || store.getState().holder !== "ours") continue;
      if (hasTake(take.id)) void settle(take);
      else if (!isWhole) offerCutOff(take);
      else if (!waiting.has(take.id) && addTake(take, "kept a recording of another tab")) void settle(take);
    }
  }

  store.subscribe((now, before) => {
    if (waiting.size > 0 && now.holder === "ours" && (before.holder !== "ours" || now.kit !== before.kit))
      queueMicrotask(takeUpWaiting);
  });

  return { keep, offer, hasWaiting: () => waiting.size > 0 };
}
