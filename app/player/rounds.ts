import { parseTake, takesDocument, type Take, type Takes } from "#core";

/** A round that was played, and whether it is to be sent. */
export interface KeptRound {
  readonly take: Take;
  readonly isSent: boolean;
}

/** The rounds that were played, kept in the browser where it keeps anything for a page from a disk. */
export interface Rounds {
  readonly list: () => readonly KeptRound[];
  readonly add: (take: Take) => void;
  /** Gives a round another name; an empty one changes nothing. */
  readonly rename: (id: string, name: string) => void;
  readonly setSent: (id: string, isSent: boolean) => void;
  /** The rounds that are to be sent as one document, with the name that the player gives. */
  readonly toDocument: (player: string) => Takes;
  /** Is there a round that no file holds yet? */
  readonly isUnsaved: () => boolean;
  /** What is to be sent now is in a file. */
  readonly saved: () => void;
}

/** The part of the Storage interface that is used. */
export type Small = Pick<Storage, "getItem" | "setItem">;

/** Letters of a name that is given here: two of them make the name of a take. */
const MOST_LETTERS = 90;

function readKept(small: Small | undefined, key: string): KeptRound[] {
  try {
    const kept: unknown = JSON.parse(small?.getItem(key) ?? "[]");
    if (!Array.isArray(kept)) return [];
    return kept.flatMap((item: { take?: unknown; isSent?: unknown }) => {
      const read = parseTake(item?.take);
      return read.ok ? [{ take: read.value, isSent: item.isSent !== false }] : [];
    });
  } catch (error) {
    console.info("What this browser kept of earlier rounds does not read.", error);
    return [];
  }
}

/** Makes the list of rounds of a kit. `small`: where they are kept; undefined where the browser keeps nothing. */
export function createRounds(
  kit: { readonly id: string; readonly name: string },
  small: Small | undefined,
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
      const name = typed.trim().slice(0, MOST_LETTERS);
      if (name === "") return;
      inFile.delete(id);
      keep(rounds.map(round => (round.take.id === id ? { ...round, take: { ...round.take, name } } : round)));
    },
    setSent: (id, isSent) => keep(rounds.map(round => (round.take.id === id ? { ...round, isSent } : round))),
    toDocument(player) {
      const name = player.trim().slice(0, MOST_LETTERS);
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
