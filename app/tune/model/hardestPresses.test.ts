import { expect, test } from "vitest";
import type { PressShare } from "#core";
import type { PlayedHands } from "../../judging/jobs/hands";
import { listHardest } from "./hardestPresses";

const shareOf = (hits: number) => ({ hits, n: 10, share: hits / 10, low: 0, high: 1 });

/** A press of frame `frame` that `hits` of ten plays use. */
const press = (frame: number, hits: number, was: "used" | "lost" | "neither"): PressShare => ({
  take: "t",
  control: "a",
  press: frame,
  frame,
  moves: was === "used" ? [0] : [],
  prompts: [],
  lostBy: was === "lost" ? [0] : [],
  kept: shareOf(hits),
  same: was === "used" ? shareOf(hits) : undefined,
  failsAt: 1,
});

const listOf = (...presses: PressShare[]) => listHardest([{ presses } as unknown as PlayedHands]);
const framesOf = (listed: readonly { readonly press: PressShare }[]) => listed.map(one => one.press.frame);

test("presses that the take used come least often used first, those it lost most often used first", () => {
  const { used, lost } = listOf(
    press(1, 9, "used"),
    press(2, 0, "used"),
    press(3, 1, "lost"),
    press(4, 7, "lost"),
    press(5, 5, "used"),
  );
  expect(framesOf(used)).toEqual([2, 5, 1]);
  expect(framesOf(lost)).toEqual([4, 3]);
});

test("presses without a request in the take, or that no play saves, are only counted", () => {
  const { used, lost, hopeless, chance } = listOf(
    press(1, 0, "lost"),
    press(2, 0, "neither"),
    press(3, 1, "neither"),
  );
  expect([used.length, lost.length, hopeless, chance]).toEqual([0, 0, 2, 1]);
});

test("a list of many presses ends: ten that were used, five that were lost", () => {
  const many = Array.from({ length: 40 }, (_, k) => press(k, 5, k % 2 ? "used" : "lost"));
  const { used, lost } = listOf(...many);
  expect([used.length, lost.length]).toEqual([10, 5]);
});
