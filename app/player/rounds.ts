import { parseTake, takesDocument, type Take, type Takes } from "#core";

/** A played round, and whether it is included in the file. */
export interface KeptRound {
  readonly take: Take;
  readonly isSent: boolean;
}

/** The played rounds, stored in the browser if it stores anything for local pages. */
export interface Rounds {
  readonly list: () => readonly KeptRound[];
  readonly add: (take: Take) => void;
  /** Renames a round; an empty name changes nothing. */
  readonly rename: (id: string, name: string) => void;
  readonly setSent: (id: string, isSent: boolean) => void;
  /** Returns the included rounds as one document, with the player's name. */
  readonly toDocument: (player: string) => Takes;
  /** Returns whether any round is not in a file yet. */
  readonly isUnsaved: () => boolean;
  /** Marks the included rounds as saved to a file. */
  readonly saved: () => void;
}

/** The part of the Storage interface that is used. */
export type RoundStore = Pick<Storage, "getItem" | "setItem">;

/** The maximum length of a name entered here; two of them form the name of a take. */
const MAX_LETTERS = 90;

function readKept(small: RoundStore | undefined, key: string): KeptRound[] {
  try {
    const kept: unknown = JSON.parse(small?.getItem(key) ?? "[]");
    if (!Array.isArray(kept)) return [];
    return kept.flatMap((item: { take?: unknown; isSent?: unknown }) => {
      const read = parseTake(item?.take);
      return read.ok ? [{ take: read.value, isSent: item.isSent !== false }] : [];
    });
  } catch (error) {
    console.info("The earlier rounds kept in this browser cannot be read.", error);
    return [];
  }
}

/** Creates the list of rounds of a kit. `localStorage` is undefined if the browser stores nothing. */
export function createRounds(
  kit: { readonly id: string; readonly name: string },
  small: RoundStore | undefined,
): Rounds {
  const key = `moss-tap/rounds/${kit.id}`;
  let rounds = readKept(small, key);
  const inFile = new Set<string>();
  function keep(next: KeptRound[]): void {
    rounds = next;
    try {
      small?.setItem(key, JSON.stringify(rounds));
    } catch (error) {
      console.info("This browser keeps no more rounds; they stay on this page until it is left.", error);
    }
  }
  return {
    list: () => rounds,
    add: take => keep([...rounds, { take, isSent: true }]),
    rename(id, typed) {
      const name = typed.trim().slice(0, MAX_LETTERS);
      if (name === "") return;
      inFile.delete(id);
      keep(rounds.map(round => (round.take.id === id ? { ...round, take: { ...round.take, name } } : round)));
    },
    setSent: (id, isSent) => keep(rounds.map(round => (round.take.id === id ? { ...round, isSent } : round))),
    toDocument(player) {
      const name = player.trim().slice(0, MAX_LETTERS);
      const takes = rounds.flatMap(({ take, isSent }) => {
        if (!isSent) return [];
        return [name === "" ? take : { ...take, name: `${name}, ${take.name}`, player: name }];
      });
      const title = name === "" ? `Rounds of ${kit.name}` : `${name}, rounds of ${kit.name}`;
      return takesDocument(
        { id: `${kit.id.slice(0, 90)}-rounds`, name: title.slice(0, 200), kit: kit.id },
        takes,
      );
    },
    isUnsaved: () => rounds.some(({ take, isSent }) => isSent && !inFile.has(take.id)),
    saved: () => rounds.forEach(({ take, isSent }) => isSent && inFile.add(take.id)),
  };
}
