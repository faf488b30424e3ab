import { useMemo, useState } from "react";
import { countWords, formatIssue, formatPrice, findPrice, type Kit, changeCheckRate } from "#core";
import { changeRate, readRateChange, type Keeps, type RateChange } from "../edits/rateEdits";
import { isLong } from "../judging/longTake";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { IdStone } from "../parts/IdStone";
import { NumberStone } from "../ui/NumberStone";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import { noStep } from "../ui/noStep";

const QUEUES = [
  {
    value: "newest",
    label: "only the newest",
    hint: "a newer press for the same move takes the older one's place",
  },
  { value: "all", label: "every one", hint: "each waits for itself, and is performed or lost in its turn" },
] as const;

const KEEPS: readonly { readonly value: Keeps; readonly label: string; readonly hint: string }[] = [
  {
    value: "time",
    label: "keep their time",
    hint: "they are written again, in the frames that last about as long",
  },
  { value: "frames", label: "keep their frames", hint: "as they are written: each then lasts another time" },
];

/** Describes one of a kit's lengths, before and after. */
function exampleWords({ example }: RateChange, keeps: Keeps, rate: number): string {
  if (!example) return "";
  const [before, after] = [example.msBefore, example.msAfter].map(ms => `${Math.round(ms)} ms`);
  const kept = Math.max(1, Math.round((example.msBefore * rate) / 1000));
  return keeps === "frames"
    ? `: ${example.written}, ${before} now, will last ${after}`
    : `: ${example.written}, ${before}, becomes ${kept}f`;
}

/** Describes the effect of another rate on the kit's takes; omits long takes and notes it. */
function useTakesThen(kit: Kit, then: Kit): { readonly words: string; readonly isSound: boolean } {
  const { judge } = useJudging();
  const takes = useDocument(state => state.takes);
  return useMemo(() => {
    const before = judge.compile(kit);
    const after = judge.compile(then);
    if (!after.ok) return { words: formatIssue(after.issues[0]!), isSound: false };
    if (!before.ok) return { words: "", isSound: true };
    const short = takes.filter(take => !isLong(take, kit.rate) && !isLong(take, then.rate));
    if (short.length === 0) return { words: "", isSound: true };
    const pairs = short.map(take => ({
      before: judge.evaluate(before.value, take).trace,
      after: judge.evaluate(after.value, take).trace,
    }));
    const left = takes.length - short.length;
    const rest = left > 0 ? ` ${countWords(left, "long take")} not looked at.` : "";
    // Every frame has another number at another rate, so only counts are compared.
    const price = findPrice(pairs);
    const lines = price.lines
      .filter(({ more, fewer }) => more > 0 || fewer > 0)
      .map(line => ({ ...line, moved: 0 }));
    return { words: `Effect: ${formatPrice(kit, { ...price, lines })}.${rest}`, isSound: true };
  }, [judge, kit, then, takes]);
}

/** The change to another rate, with a preview. */
function RateChangeLine({ kit, rate, onDone }: { kit: Kit; rate: number; onDone: () => void }) {
  const workbench = useWorkbench();
  const [keeps, setKeeps] = useState<Keeps>("time");
  const change = useMemo(() => readRateChange(kit, rate), [kit, rate]);
  const then = useMemo(() => changeRate(kit, rate, keeps), [kit, rate, keeps]);
  const { words, isSound } = useTakesThen(kit, then);
  return (
    <div className="my-3 rounded-stone border-2 border-moss bg-leaf p-4" data-testid="rate-change">
      <p>
        At {rate} frames a second {countWords(change.inFrames, "length")} written in frames{" "}
        <ChoiceWord
          label="What lengths in frames keep"
          value={keeps}
          choices={KEEPS}
          onChoose={value => setKeeps(value as Keeps)}
        />
        {exampleWords(change, keeps, rate)}.
        {change.inMs > 0 && ` ${countWords(change.inMs, "length")} in ms keep their time either way.`}
      </p>
      {words !== "" && <p className={`mt-1 text-sm ${isSound ? "text-soft" : "text-foxglove"}`}>{words}</p>}
      <p className="mt-3 flex gap-2">
        <Button
          look="strong"
          disabled={!isSound}
          onClick={() => {
            workbench.edit(`set to ${rate} frames a second`, now => ({
              ...now,
              kit: changeRate(now.kit, rate, keeps),
              checks: now.checks.map(check => changeCheckRate(check, now.kit.rate, rate)),
            }));
            onDone();
          }}
        >
          Change to {rate}
        </Button>
        <Button onClick={onDone}>Leave it at {kit.rate}</Button>
      </p>
    </div>
  );
}

/** The kit's clock: its rate, and the buffering of requests. */
export function Clock() {
  const workbench = useWorkbench();
  const kit = useDocument(state => state.kit);
  const [rate, setRate] = useState<number | undefined>();
  if (!kit) return null;
  const isOther = rate !== undefined && rate !== kit.rate;
  return (
    <section aria-label="Clock" className="min-h-0 grow overflow-auto px-6 py-4">
      <h1 className="mb-3 font-serif text-2xl">Frame rate and timing</h1>
      <p className="font-serif text-xl">
        The game runs at{" "}
        <NumberStone
          label="frames a second"
          value={rate ?? kit.rate}
          least={1}
          most={1000}
          isWhole
          onChange={setRate}
          beginStep={() => noStep(() => setRate(undefined))}
        />{" "}
        frames a second: one frame is {(1000 / (rate ?? kit.rate)).toFixed(2)} ms.
      </p>
      {isOther && <RateChangeLine kit={kit} rate={rate} onDone={() => setRate(undefined)} />}
      <p className="mt-4 font-serif text-xl">
        Of the presses that wait for one move,{" "}
        <ChoiceWord
          label="Presses that wait for a move"
          value={kit.queue ?? "newest"}
          choices={QUEUES}
          onChoose={queue =>
            workbench.editKit(`let ${queue === "all" ? "every press" : "the newest press"} wait`, now => ({
              ...now,
              queue: queue as "newest" | "all",
            }))
          }
        />{" "}
        is remembered.
      </p>
      <h2 className="mt-6 text-sm font-semibold">Export names of its controls</h2>
      <p className="text-sm text-soft">
        Takes and layouts follow when one is changed. The kit itself is{" "}
        <code className="font-mono">{kit.id}</code>.
      </p>
      <ul className="mt-2 grid max-w-2xl grid-cols-2 gap-x-6">
        {kit.controls.map(control => (
          <li key={control.id} className="flex items-baseline gap-3 border-b border-dotted border-line py-1">
            <b className="min-w-0 truncate">{control.name}</b>
            <span className="ml-auto">
              <IdStone list="controls" id={control.id} name={control.name} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
