import type { FittedCharacter, Kit } from "#core";
import { fitTakes } from "./groups";
import type { Job } from "./job";

/** Fits the character with which takes were played. */
export const fitJob: Job<{ readonly kit: Kit }, FittedCharacter> = async ({ kit }, takes, tools) => ({
  value: await fitTakes(kit, takes, tools),
});
