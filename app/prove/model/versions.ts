import { appliesTo, applyAssist, changeCheckRate, findAssist, type Check, type Kit, type Take } from "#core";
import { sumUp, toVerdicts } from "../../document/proving";
import { whyTooLong } from "../../judging/longTake";
import type { ProvedTake } from "../../judging/jobs/prove";
import type { KitSettings, Variant } from "../../storage/records";
import { countFailing, type CheckSum } from "../../ui/checkSum";

/** A version that is judged beside the present one: a variant, an assist that is on, or another rate. */
export type Version = NonNullable<KitSettings["beside"]>[number];

/** A version with everything that is judged: its rules, the checks that are on, at its rate, and the takes that can be run. */
export interface VersionAsked {
  readonly words: string;
  readonly kit: Kit;
  readonly checks: readonly Check[];
  readonly takes: readonly Take[];
  /** The takes that are too long for its rate. */
  readonly tooLong: readonly Take[];
}

/** Returns the rules of a version and the checks at its rate; undefined if its variant or assist is not there any more. */
function readRules(
  version: Version,
  kit: Kit,
  checks: readonly Check[],
  variants: readonly Variant[],
): Omit<VersionAsked, "takes" | "tooLong"> | undefined {
  if ("rate" in version) {
    const { rate } = version;
    return {
      words: `${kit.name} at ${rate}`,
      kit,
      checks: checks.map(check => ({ ...check, rates: [rate] })),
    };
  }
  if ("assist" in version) {
    const assist = findAssist(kit, version.assist);
    return assist && { words: `With “${assist.name}” on`, kit: applyAssist(kit, assist), checks };
  }
  const variant = variants.find(item => item.id === version.variant);
  if (!variant) return undefined;
  const own = checks.map(check => changeCheckRate(check, kit.rate, variant.kit.rate));
  return { words: variant.name, kit: variant.kit, checks: own };
}

/** Returns what is judged of a version; undefined if its variant or assist is not there any more. */
export function readVersion(
  version: Version,
  kit: Kit,
  checks: readonly Check[],
  takes: readonly Take[],
  variants: readonly Variant[],
): VersionAsked | undefined {
  const on = checks.filter(check => !check.off);
  const rules = readRules(version, kit, on, variants);
  if (!rules) return undefined;
  const rateHz = "rate" in version ? version.rate : rules.kit.rate;
  const tooLong = takes.filter(take => whyTooLong(take, rateHz) !== "");
  return { ...rules, takes: takes.filter(take => !tooLong.includes(take)), tooLong };
}

/** The result of a version's checks, counted as those of the open kit. */
export interface VersionSum extends CheckSum {
  /** The names of the checks that were judged and do not hold. */
  readonly failing: readonly string[];
  /** The number of checks that could not be judged: they name something the version lacks, or a take is too long for it. */
  readonly unjudged: number;
}

/** Counts the checks of a version that hold on all of their takes. `proved`: its results, by the index of the take. */
export function sumVersion(
  { kit, checks, takes, tooLong }: VersionAsked,
  proved: readonly ProvedTake[],
): VersionSum {
  const found = new Map(
    proved.map(({ take, verdicts }) => [takes[take]!.id, toVerdicts(checks, verdicts)] as const),
  );
  const all = [...takes, ...tooLong];
  const faulty = checks.filter(check =>
    all.some(take => appliesTo(check, take.id) && !found.get(take.id)?.has(check.id)),
  );
  const faults = new Map(faulty.map(({ id }) => [id, []] as const));
  const { unknown: _unknown, ...sum } = sumUp({ found, faults }, kit, checks, all);
  const failing = checks.filter(check => {
    const own = sumUp({ found, faults }, kit, [check], all);
    return countFailing(own) > 0 && !faults.has(check.id);
  });
  return { ...sum, failing: failing.map(({ id, name }) => name || id), unjudged: faulty.length };
}
