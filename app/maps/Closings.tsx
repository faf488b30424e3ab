import { useEffect, useState } from "react";
import { formatPrice, type Kit } from "#core";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import { isLong } from "../judging/longTake";
import { Button } from "../ui/Button";
import { closeStretch, findBroken, listStretches, wantedKey, type Closing } from "./pressLengths";

/** The pause after which repairs are computed: a drag makes many kits, and only the last one matters. */
const REST_MS = 150;

/**
 * The stretches that are weighed, in order of length, the repairs offered for each, and those compiled for it.
 * The next stretches come up as these are closed or accepted.
 */
const MAX_STRETCHES = 6;
const MAX_REPAIRS = 4;
const MAX_COMPILED = 12;

/**
 * A repair; only one that was tried on the takes is offered. `words`: its price, or the reason for having
 * none.
 */
interface WeighedRepair {
  readonly closing: Closing;
  readonly isTried: boolean;
  readonly words: string;
}

/** A stretch in need of repair, and its repairs. */
interface Weighed {
  readonly key: string;
  readonly words: string;
  readonly isWanted: boolean;
  readonly repairs: readonly WeighedRepair[];
}

/**
 * Returns the repairs of a control's stretches that break no rule, priced over all takes in a worker once
 * input pauses.
 */
function useWeighed(kit: Kit, controlId: string, upTo: number): readonly Weighed[] {
  const { judge, jobs, yieldToUi } = useJudging();
  const takes = useDocument(state => state.takes);
  const wanted = useDocument(state => state.settings.wanted);
  const [shown, setShown] = useState<readonly Weighed[]>([]);
  useEffect(() => {
    let stop = () => {};
    let isStopped = false;
    const isSound = ({ edit }: Closing) => {
      const edited = judge.compile(edit(kit));
      return edited.ok && !findBroken(judge.compile(kit), edited);
    };
    /** Returns the first sound repairs; compiles one between two events of the page. */
    const listSound = async (candidates: readonly Closing[]) => {
      const sound: Closing[] = [];
      for (const closing of candidates) {
        if (isStopped || sound.length === MAX_REPAIRS) break;
        await yieldToUi();
        if (isSound(closing)) sound.push(closing);
      }
      return sound;
    };
    const weighAll = async () => {
      const rules = judge.rulesOf(kit);
      if (!rules) return setShown([]);
      const control = rules.program.controls.findIndex(item => item.id === controlId);
      const stretches = listStretches(rules.program, control, upTo);
      const short = takes.filter(take => !isLong(take, kit.rate));
      const keys = stretches.map((_, k) => wantedKey(controlId, stretches, k));
      const inNeed = stretches.flatMap((stretch, k) => (keys[k] === "" ? [] : [{ stretch, key: keys[k]! }]));
      const found: (Omit<Weighed, "repairs"> & { readonly closings: readonly Closing[] })[] = [];
      let open = 0;
      for (const { stretch, key } of inNeed) {
        const isWanted = wanted?.includes(key) ?? false;
        if (!isWanted && ++open > MAX_STRETCHES) continue;
        const candidates = isWanted ? [] : closeStretch(kit, stretch, controlId).slice(0, MAX_COMPILED);
        const closings = await listSound(candidates);
        found.push({ key, words: `${stretch.from}f to ${stretch.to}f`, isWanted, closings });
      }
      if (isStopped) return;
      const weigh = (of: (closing: Closing) => Omit<WeighedRepair, "closing">): Weighed[] =>
        found.map(({ closings, ...stretch }) => ({
          ...stretch,
          repairs: closings.map(closing => ({ closing, ...of(closing) })),
        }));
      const untried = (words: string) => weigh(() => ({ isTried: false, words }));
      const all = found.flatMap(({ closings }) => closings);
      if (all.length === 0 || short.length === 0)
        return setShown(weigh(() => ({ isTried: true, words: "" })));
      setShown(untried("trying it on the takes …"));
      const changes = all.map(({ edit }) => edit(kit));
      const asked = jobs.ask({ job: "prices", question: { kit, changes }, takes: short });
      stop = asked.stop;
      void asked.outcome.then(outcome => {
        if (outcome.state === "failed") setShown(untried(`it could not be tried: ${outcome.reason}`));
        if (outcome.state !== "done") return;
        const prices = outcome.value;
        setShown(
          weigh(closing => {
            const price = prices[all.indexOf(closing)];
            return { isTried: price !== undefined, words: price ? formatPrice(kit, price) : "" };
          }),
        );
      });
    };
    const timer = setTimeout(() => void weighAll(), REST_MS);
    return () => {
      isStopped = true;
      clearTimeout(timer);
      stop();
    };
  }, [judge, jobs, yieldToUi, kit, takes, wanted, controlId, upTo]);
  return shown;
}

/**
 * Below the map of press lengths: the repairs that close a dead stretch or separate two rules, and a way to
 * accept it as intended.
 */
export function Closings({
  kit,
  controlId,
  upTo,
}: {
  kit: Kit;
  controlId: string;
  /** The longest press considered, in frames. */
  upTo: number;
}) {
  const workbench = useWorkbench();
  const weighed = useWeighed(kit, controlId, upTo);
  const setWanted = (key: string, isWanted: boolean) =>
    workbench.updateKitSettings(settings => ({
      ...settings,
      wanted: [...(settings.wanted ?? []).filter(item => item !== key), ...(isWanted ? [key] : [])],
    }));
  if (weighed.length === 0) return null;
  return (
    <ul className="mt-1 flex flex-col gap-1.5 text-sm" data-testid="closings">
      {weighed.map(({ key, words, isWanted, repairs }) => (
        <li key={`${key} ${words}`} className="flex flex-wrap items-center gap-x-2 gap-y-1">
          {repairs.map(({ closing, isTried, words: price }) => (
            <span key={closing.words} className="flex flex-wrap items-center gap-x-2">
              <Button disabled={!isTried} onClick={() => workbench.editKit(closing.words, closing.edit)}>
                {closing.words}
              </Button>
              <span className="text-soft">{price}</span>
            </span>
          ))}
          {isWanted && <span className="text-soft">{words} is as it is wanted.</span>}
          <Button look="quiet" onClick={() => setWanted(key, !isWanted)}>
            {isWanted ? "Show it again" : `${words} is wanted so`}
          </Button>
        </li>
      ))}
    </ul>
  );
}
