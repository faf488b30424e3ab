import { useEffect, useState } from "react";
import { findPrice, formatPrice, type Kit } from "#core";
import { useDesk, useDocument } from "../document/context";
import { isLong } from "../judging/judge";
import { Button } from "../ui/Button";
import { closeStretch, findBroken, listStretches, wantedKey, type Closing } from "./pressLengths";

/** How long the hand must rest before repairs are weighed: a pull makes many kits, and only the last is worth it. */
const REST_MS = 150;

/** A stretch that asks for a repair, what would repair it, and what each costs. */
interface Weighed {
  readonly key: string;
  readonly words: string;
  readonly isWanted: boolean;
  readonly repairs: readonly { readonly closing: Closing; readonly price: string }[];
}

/** The repairs of a control's stretches that break no rule, each priced over all takes, once the hand has rested. */
function useWeighed(kit: Kit, controlId: string, upTo: number): readonly Weighed[] {
  const { judge } = useDesk();
  const takes = useDocument(state => state.takes);
  const wanted = useDocument(state => state.rows.wanted);
  const [shown, setShown] = useState<readonly Weighed[]>([]);
  useEffect(() => {
    const timer = setTimeout(() => {
      const rules = judge.rulesOf(kit);
      if (!rules) return setShown([]);
      const control = rules.program.controls.findIndex(item => item.id === controlId);
      const stretches = listStretches(rules.program, control, upTo);
      const short = takes.filter(take => !isLong(take, kit.rate));
      const weigh = (closing: Closing) => {
        const edited = judge.compile(closing.edit(kit));
        if (!edited.ok || findBroken(judge.compile(kit), edited)) return [];
        const pairs = short.map(take => ({
          before: judge.evaluate(rules, take).trace,
          after: judge.evaluate(edited.value, take).trace,
        }));
        return [{ closing, price: short.length === 0 ? "" : formatPrice(kit, findPrice(pairs)) }];
      };
      setShown(
        stretches.flatMap((stretch, k): Weighed[] => {
          const key = wantedKey(controlId, stretches, k);
          const isWanted = wanted?.includes(key) ?? false;
          if (key === "") return [];
          const repairs = isWanted ? [] : closeStretch(kit, stretch, controlId).flatMap(weigh);
          const words = `${stretch.from}f to ${stretch.to}f`;
          return [{ key, words, isWanted, repairs }];
        }),
      );
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [judge, kit, takes, wanted, controlId, upTo]);
  return shown;
}

/** Under the map of press lengths: what would close a dead stretch or part two rules, or that it is wanted so. */
export function Closings({
  kit,
  controlId,
  upTo,
}: {
  kit: Kit;
  controlId: string;
  /** The longest press looked at, in frames. */
  upTo: number;
}) {
  const { workbench } = useDesk();
  const weighed = useWeighed(kit, controlId, upTo);
  const setWanted = (key: string, isWanted: boolean) =>
    workbench.arrangeTape(rows => ({
      ...rows,
      wanted: [...(rows.wanted ?? []).filter(item => item !== key), ...(isWanted ? [key] : [])],
    }));
  if (weighed.length === 0) return null;
  return (
    <ul className="mt-1 flex flex-col gap-1.5 text-sm" data-testid="closings">
      {weighed.map(({ key, words, isWanted, repairs }) => (
        <li key={`${key} ${words}`} className="flex flex-wrap items-center gap-x-2 gap-y-1">
          {repairs.map(({ closing, price }) => (
            <span key={closing.words} className="flex flex-wrap items-center gap-x-2">
              <Button onClick={() => workbench.editKit(closing.words, closing.edit)}>{closing.words}</Button>
              {price && <span className="text-soft">{price}</span>}
            </span>
          ))}
          {isWanted && <span className="text-soft">{words} is as it is wanted.</span>}
          <Button look="quiet" onClick={() => setWanted(key, !isWanted)}>
            {isWanted ? "Tell of it again" : `${words} is wanted so`}
          </Button>
        </li>
      ))}
    </ul>
  );
}
