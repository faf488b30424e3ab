import { createRecord } from "#core";
import type { GameFrame } from "./messages";

/** The changes of a take as it was played, from which it is run again under other rules. */
export interface PlayedLog {
  /** The number of frames on which something changed, and of changes. */
  readonly count: number;
  readonly changes: number;
  /** Appends a frame if it changes anything. */
  readonly add: (frame: GameFrame) => void;
  /** Returns the k-th frame with changes. */
  readonly read: (k: number) => GameFrame;
}

const [CONTROL, GATE, SPEED] = [0, 1, 2];
const FIELDS = 3;

/** A list of numbers that grows, in one typed array. */
function createColumn() {
  let values = new Float64Array(256);
  let length = 0;
  return {
    get length() {
      return length;
    },
    at: (k: number) => values[k]!,
    push(value: number) {
      if (length === values.length) {
        const grown = new Float64Array(length * 2);
        grown.set(values);
        values = grown;
      }
      values[length++] = value;
    },
  };
}

/** Creates an empty log. Takes 24 bytes for each change, so that hours of play can be held. */
export function createPlayedLog(): PlayedLog {
  const names: string[] = [];
  const places = new Map<string, number>();
  const frames = createColumn();
  const firsts = createColumn();
  const changes = createColumn();
  const placeOf = (id: string) => {
    const known = places.get(id);
    if (known !== undefined) return known;
    places.set(id, names.length);
    return names.push(id) - 1;
  };
  const put = (kind: number, place: number, value: number) => {
    changes.push(kind);
    changes.push(place);
    changes.push(value);
  };
  return {
    get count() {
      return frames.length;
    },
    get changes() {
      return changes.length / FIELDS;
    },
    add({ f, set = {}, gates = {}, speed }) {
      const first = changes.length;
      for (const [id, value] of Object.entries(set)) put(CONTROL, placeOf(id), Number(value));
      for (const [id, isOpen] of Object.entries(gates)) put(GATE, placeOf(id), isOpen ? 1 : 0);
      if (speed !== undefined) put(SPEED, 0, speed);
      if (changes.length === first) return;
      frames.push(f);
      firsts.push(first);
    },
    read(k) {
      const end = k + 1 < frames.length ? firsts.at(k + 1) : changes.length;
      const set = createRecord<number>();
      const gates = createRecord<boolean>();
      let speed: number | undefined;
      for (let at = firsts.at(k); at < end; at += FIELDS) {
        const [kind, place, value] = [changes.at(at), changes.at(at + 1), changes.at(at + 2)];
        if (kind === CONTROL) set[names[place]!] = value;
        else if (kind === GATE) gates[names[place]!] = value === 1;
        else speed = value;
      }
      return { f: frames.at(k), set, gates, ...(speed === undefined ? {} : { speed }) };
    },
  };
}
