import { CHARACTERS, FITTED_NAME, type Aims, type Character, type Take } from "#core";
import { OWN_HANDS, type FittedHand, type TakeGroups } from "../../document/studySettings";

/** Returns the characters to choose from: the built-in ones, and the fitted one. */
export function listCharacters(fitted: FittedHand | undefined): readonly Character[] {
  return fitted ? [...CHARACTERS, fitted.character] : CHARACTERS;
}

/**
 * Returns the aims with which a character plays takes, as part of a question: those of the fitted one, for the takes that it was
 * fitted to and that are unchanged since; none for others.
 */
export function withAims(
  fitted: FittedHand | undefined,
  character: Character,
  takes: readonly Take[],
): { readonly aims?: Aims } {
  if (!fitted || character.name !== FITTED_NAME) return {};
  const own = takes.filter(take => fitted.takes.includes(take));
  return {
    aims: new Map(own.flatMap(({ id }) => (fitted.aims.has(id) ? [[id, fitted.aims.get(id)!]] : []))),
  };
}

/** Describes the onsets of a character: "33 ms late, give or take 40 ms". */
export function formatOnsets({ biasMs, spreadMs }: Character): string {
  const bias = biasMs === 0 ? "on time" : `${Math.abs(biasMs)} ms ${biasMs < 0 ? "early" : "late"}`;
  return `${bias}, give or take ${spreadMs} ms`;
}

/** The choice of hands that are fitted to the takes they play, in words. */
export function formatOwnHands(by: TakeGroups): string {
  return by === "none" ? "The hand of these takes" : `Each ${by}’s own hand`;
}

/** The hands that a sentence can name: "by steady hands". */
export function listHandChoices(
  characters: readonly Character[],
  by: TakeGroups,
): readonly { readonly value: string; readonly label: string; readonly hint: string }[] {
  const own = by === "none" ? "the hands of these takes" : `each ${by}’s own hands`;
  return [
    ...characters.map(({ name, spreadMs }) => ({
      value: name,
      label: `${name.toLowerCase()} hands`,
      hint: `each press moved by chance, give or take ${spreadMs} ms`,
    })),
    { value: OWN_HANDS, label: own, hint: "fitted to the takes that they play" },
  ];
}

/** Formats the seeds of a number of plays: "seeds 1 to 200"; `isWhole`: whether all of them have been played. */
export function formatSeeds(first: number, plays: number, isWhole = true): string {
  if (plays === 1) return `seed ${first}`;
  return `seeds ${isWhole ? "" : "among "}${first} to ${first + plays - 1}`;
}
