import { useEffect, useMemo, useState } from "react";
import { applyAssist, findAssist, appliesTo, type Check, type Kit, type Take, changeCheckRate } from "#core";
import type { ProvedTake } from "../judging/jobs/prove";
import type { KitSettings, Variant } from "../storage/records";
import { ChoiceWord } from "../ui/ChoiceWord";
import { useProof } from "../document/checksContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import { holdWords } from "../ui/holdWords";
import { missingTakes } from "./model/cells";
import { useTape } from "../tape/hand/context";

type Version = NonNullable<KitSettings["beside"]>[number];

const RATES = [30, 50, 60, 72, 90, 120, 144, 240] as const;
const NONE: readonly Version[] = [];

/** A version to prove: its name, its kit, and the checks that apply to it. */
interface Asked {
  readonly words: string;
  readonly kit: Kit;
  readonly checks: readonly Check[];
}

function readVersion(
  version: Version,
  kit: Kit,
  checks: readonly Check[],
  variants: readonly Variant[],
): Asked | undefined {
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

/** The number of takes in which each check holds, of all that it names, by its index; undefined for one that cannot be judged. */
type Sums = readonly ({ readonly holds: number; readonly asked: number } | undefined)[];

function sumUp(checks: readonly Check[], takes: readonly Take[], proved: readonly ProvedTake[]): Sums {
  return checks.map((check, c) => {
    const found = proved.flatMap(({ verdicts }) => {
      const own = verdicts.filter(verdict => verdict.check === c);
      return own.length === 0 ? [] : [own.every(({ ok }) => ok)];
    });
    const own = takes.filter(take => appliesTo(check, take.id)).length;
    if (own > 0 && found.length === 0) return undefined;
    return { holds: found.filter(Boolean).length, asked: own + missingTakes(check, takes).length };
  });
}

/** Judges a version in a worker, after the present one. */
function useSums(asked: Asked | undefined, takes: readonly Take[], lane: string): Sums | undefined {
  const { jobs } = useWorkers();
  const isBusy = useProof(state => state.isWorking);
  const [sums, setSums] = useState<Sums>();
  useEffect(() => {
    if (!asked || isBusy) return;
    const { kit, checks } = asked;
    const own = jobs.ask({ job: "prove", question: { kit, checks }, takes, lane });
    void own.outcome.then(outcome => {
      if (outcome.state === "done") setSums(sumUp(checks, takes, outcome.value));
    });
    return own.stop;
  }, [jobs, asked, takes, lane, isBusy]);
  return sums;
}

function BesideRow({
  version,
  kit,
  checks,
  takes,
  place,
  onRemove,
}: {
  version: Version;
  kit: Kit;
  checks: readonly Check[];
  takes: readonly Take[];
  place: number;
  onRemove: () => void;
}) {
  const { look } = useTape();
  const variants = useDocument(state => state.variants);
  const asked = useMemo(() => readVersion(version, kit, checks, variants), [version, kit, checks, variants]);
  const sums = useSums(asked, takes, `beside ${place}`);
  const known = sums?.filter(sum => sum !== undefined) ?? [];
  const judged = known.filter(sum => sum.asked > 0);
  const holds = judged.filter(sum => sum.holds === sum.asked).length;
  const all = judged.length;
  const failing = checks.filter((_, c) => sums?.[c] && sums[c].holds < sums[c].asked);
  const words =
    asked?.words ??
    ("assist" in version ? "An assist that is not here any more" : "A variant that is not here any more");
  return (
    <li className="flex items-baseline gap-3 border-t border-line px-5 py-1 text-sm">
      {"variant" in version && asked ? (
        <button
          type="button"
          className="font-semibold text-moss underline-offset-4 hover:underline"
          onClick={() => look.setState({ laidOver: version.variant })}
          title="Lay it over the take on the tape"
        >
          {words}
        </button>
      ) : (
        <b>{words}</b>
      )}
      {sums && <span className={holds < all ? "text-foxglove" : "text-moss"}>{holdWords(holds, all)}</span>}
      <span className="min-w-0 grow truncate text-soft">
        {!sums && asked && "being judged…"}
        {failing.length > 0 && `not: ${failing.map(check => check.name || check.id).join(", ")}`}
        {sums && sums.length > known.length && ` · ${sums.length - known.length} cannot be asked of it`}
      </span>
      <button
        type="button"
        aria-label={`Take ${words} away`}
        className="px-1.5 text-soft hover:text-foxglove"
        onClick={onRemove}
      >
        ×
      </button>
    </li>
  );
}

/** Other versions judged by the same checks: variants, and the present rules at other rates. */
export function Beside({
  kit,
  checks,
  takes,
}: {
  kit: Kit;
  checks: readonly Check[];
  takes: readonly Take[];
}) {
  const workbench = useWorkbench();
  const variants = useDocument(state => state.variants);
  const beside = useDocument(state => state.settings.beside) ?? NONE;
  const set = (versions: readonly Version[]) =>
    workbench.updateKitSettings(settings => ({ ...settings, beside: [...versions] }));
  const choices = [
    ...variants
      .filter(variant => !beside.some(item => "variant" in item && item.variant === variant.id))
      .map(variant => ({ value: `variant ${variant.id}`, label: variant.name })),
    ...(kit.assists ?? [])
      .filter(({ id }) => !beside.some(item => "assist" in item && item.assist === id))
      .map(({ id, name }) => ({ value: `assist ${id}`, label: `with “${name}” on` })),
    ...RATES.filter(
      rate => rate !== kit.rate && !beside.some(item => "rate" in item && item.rate === rate),
    ).map(rate => ({ value: `rate ${rate}`, label: `at ${rate} frames a second` })),
  ];
  const add = (value: string) => {
    const [kind, id = ""] = [value.slice(0, value.indexOf(" ")), value.slice(value.indexOf(" ") + 1)];
    const version =
      kind === "rate" ? { rate: Number(id) } : kind === "assist" ? { assist: id } : { variant: id };
    set([...beside, version]);
  };
  return (
    <section aria-label="Other versions" className="shrink-0 border-t border-line pb-1" data-testid="beside">
      <p className="px-5 py-1 text-sm">
        Compare with:{" "}
        <ChoiceWord
          label="Another version"
          value=""
          placeholder={beside.length === 0 ? "a variant, an assist, or another rate …" : "one more …"}
          choices={choices}
          onChoose={add}
        />
      </p>
      <ul className="max-h-24 overflow-auto">
        {beside.map((version, k) => (
          <BesideRow
            key={JSON.stringify(version)}
            version={version}
            kit={kit}
            checks={checks}
            takes={takes}
            place={k}
            onRemove={() => set(beside.filter(item => item !== version))}
          />
        ))}
      </ul>
    </section>
  );
}
