import * as v from "valibot";
import { createStore, type StoreApi } from "zustand/vanilla";
import { padMapSchema, type PadMap } from "#core";
import type { LocalStore } from "../storage/setAside";
import type { PadReading } from "./gamepads";
import { mapPad } from "./padMapping";

const KEY = "moss-tap-pads";
const mapsSchema = v.array(padMapSchema);

type ReadPads = () => readonly (PadReading | null)[];

/** The maps of pads without the standard layout, kept in this browser by the pad's id. */
export interface PadMaps extends Pick<
  StoreApi<readonly PadMap[]>,
  "getState" | "getInitialState" | "subscribe"
> {
  /** Keeps the map of a pad in place of an earlier one. */
  readonly keep: (map: PadMap) => void;
  /** Keeps maps of pads that have none; returns them. */
  readonly keepMissing: (maps: readonly PadMap[]) => readonly PadMap[];
  readonly forget: (padId: string) => void;
  /** Reads the pads as they are; undefined if the browser has no such API. */
  readonly readRaw: ReadPads | undefined;
  /** Reads the pads, those with a map as standard ones; undefined if the browser has no such API. */
  readonly read: ReadPads | undefined;
}

function readStored(store: LocalStore | undefined): readonly PadMap[] {
  try {
    const parsed = v.safeParse(mapsSchema, JSON.parse(store?.getItem(KEY) ?? "[]"));
    if (parsed.success) return parsed.output;
    console.info("The maps of pads in this browser do not read; they are left as they are.");
  } catch (error) {
    console.info("The maps of pads in this browser could not be read.", error);
  }
  return [];
}

/** Creates the maps of one page. A browser that stores nothing keeps them until the page is left. */
export function createPadMaps(localStorage: LocalStore | undefined, readRaw: ReadPads | undefined): PadMaps {
  const store = createStore<readonly PadMap[]>(() => readStored(localStorage));
  function set(maps: readonly PadMap[]): void {
    store.setState(maps, true);
    try {
      localStorage?.setItem(KEY, JSON.stringify(maps));
    } catch (error) {
      console.info("The maps of pads could not be stored.", error);
    }
  }
  const mapOf = (padId: string) => store.getState().find(({ pad }) => pad === padId);
  return {
    ...store,
    keep: map => set([...store.getState().filter(({ pad }) => pad !== map.pad), map]),
    keepMissing(maps) {
      const missing = maps.filter(({ pad }) => !mapOf(pad));
      if (missing.length > 0) set([...store.getState(), ...missing]);
      return missing;
    },
    forget: padId => set(store.getState().filter(({ pad }) => pad !== padId)),
    readRaw,
    read:
      readRaw &&
      (() =>
        readRaw().map(pad => {
          const map = pad && pad.mapping !== "standard" ? mapOf(pad.id) : undefined;
          return pad && map ? mapPad(pad, map) : pad;
        })),
  };
}
