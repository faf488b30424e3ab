import { useEffect, useMemo, useState } from "react";
import type { Check, Kit, Take } from "#core";
import { ChoiceWord } from "../ui/ChoiceWord";
import { useProof } from "../document/checksContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import { holdColour, holdWords, vacuousWords } from "../ui/checkSum";
import { readVersion, sumVersion, type Version, type VersionAsked, type VersionSum } from "./model/versions";
import { useTape } from "../tape/hand/context";

const RATES = [30, 50, 60, 72, 90, 120, 144, 240] as const;
const NONE: readonly Version[] = [];

/** The last result of a version, or why there is none. */
type Judged = { readonly sum: VersionSum } | { readonly trouble: string };

/** Judges a version in a worker, after the present one; the last result remains meanwhile. */
function useJudged(asked: VersionAsked | undefined, lane: string): Judged | undefined {
  const { jobs } = useWorkers();
  const isBusy = useProof(state => state.isWorking);
  const [judged, setJudged] = useState<Judged>();
  useEffect(() => {
    if (!asked || isBusy) return;
    const { kit, checks, takes } = asked;
    const own = jobs.ask({ job: "prove", question: { kit, checks }, takes, lane });
    void own.outcome.then(outcome => {
      if (outcome.state === "done") setJudged({ sum: sumVersion(asked, outcome.value) });
      else if (outcome.state === "failed") setJudged({ trouble: outcome.reason });
    });
    return own.stop;
  }, [jobs, asked, lane, isBusy]);
  return asked && judged;
}

/** The result of a version in words. */
function JudgedWords({ judged }: { judged: Judged | undefined }) {
  if (!judged) return <span className="min-w-0 grow truncate text-soft">being judged…</span>;
  if ("trouble" in judged)
    return <span className="min-w-0 grow truncate text-foxglove">not judged: {judged.trouble}</span>;
  const { failing, unjudged } = judged.sum;
  const others = [
    ...(failing.length > 0 ? [`not: ${failing.join(", ")}`] : []),
    ...(unjudged > 0 ? [`${unjudged} cannot be asked of it`] : []),
    ...(judged.sum.vacuous > 0 ? [vacuousWords(judged.sum)] : []),
  ];
  return (
    <>
      <span className={holdColour(judged.sum)}>{holdWords(judged.sum)}</span>
      <span className="min-w-0 grow truncate text-soft">{others.join(" · ")}</span>
    </>
  );
}

/** A version beside the present one, with its result. */
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
  const asked = useMemo(
    () => readVersion(version, kit, checks, takes, variants),
    [version, kit, checks, takes, variants],
  );
  const judged = useJudged(asked, `beside ${place}`);
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
      {asked ? <JudgedWords judged={judged} /> : <span className="grow" />}
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
