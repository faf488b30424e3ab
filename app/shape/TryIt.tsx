import { memo, useState } from "react";
import { traitsOf, type Control, type Kit, type Pattern } from "#core";
import { formatFixed } from "../ui/numberText";
import { Button } from "../ui/Button";
import { ControlPad } from "../parts/ControlPad";
import { ModeNow } from "../parts/ModeNow";
import { PromptsNow } from "../parts/PromptsNow";
import { MeterRing, meterIn } from "../parts/MeterRing";
import { Ticker } from "../parts/Ticker";
import { useWorkbench } from "../document/workbenchContext";
import { usePad, usePadState } from "../input/context";
import type { PadState } from "../input/padState";
import { LiveText, useWriter } from "../ui/LiveText";

/** The steps or taps of an attempt as marks that fill as they are made. */
function Rungs({ kit, pattern }: { kit: Kit; pattern: Pattern }) {
  const [made = 0, of = 0] = usePadState(state => {
    const meter = meterIn(state, pattern.id);
    return meter ? `${meter.made} ${meter.of}` : "";
  })
    .split(" ")
    .map(Number);
  const words = traitsOf(pattern.kind).rungs?.(pattern, kit) ?? [];
  if (words.length === 0) return null;
  return (
    <ol
      className="flex flex-wrap gap-1 text-xs"
      aria-label={`${made} of ${of || words.length} made`}
      data-testid="rungs"
      data-made={made}
    >
      {words.map((word, k) => (
        <li
          key={k}
          className={`rounded-full border-2 px-2 py-0.5 ${k < made ? "border-moss bg-moss text-leaf" : "border-line text-soft"}`}
        >
          {word}
        </li>
      ))}
    </ol>
  );
}

/** A charge as a bar with its levels, and its current output in the game's units; written without a render. */
function ChargeBar({ pattern }: { pattern: Pattern }) {
  const pad = usePad();
  const levels = "levels" in pattern ? pattern.levels : undefined;
  const meterOf = (state: PadState) => meterIn(state, pattern.id) ?? { ratio: 0, value: 0, level: 0 };
  const bar = useWriter<HTMLDivElement, PadState>(pad, (element, state) => {
    element.style.width = `${Math.min(1, meterOf(state).ratio) * 100}%`;
  });
  return (
    <div className="text-sm">
      <div className="relative h-3 overflow-hidden rounded-full bg-sand" aria-hidden>
        <div ref={bar} className="h-full bg-moss" />
      </div>
      <p className="mt-1 flex justify-between font-mono" data-testid="charge-now">
        <LiveText store={pad} read={state => formatFixed(meterOf(state).value, 2)} />
        <LiveText
          store={pad}
          read={state => {
            const { ratio, level } = meterOf(state);
            const name = level > 0 ? levels?.[level - 1]?.name : undefined;
            return name || `ratio ${ratio.toFixed(2)}`;
          }}
          className="text-soft"
        />
      </p>
    </div>
  );
}

/** Returns the controls of a rule, including those that cancel it or that a prompt rejects. */
function controlsOf(kit: Kit, pattern: Pattern, promptId: string | undefined): readonly Control[] {
  const prompt = kit.prompts?.find(item => item.id === promptId);
  const answers = (prompt?.ask ?? []).flatMap(id => kit.patterns.find(item => item.id === id) ?? []);
  const ids = new Set(
    [pattern, ...answers].flatMap(item => [
      ...traitsOf(item.kind).playedOn(item, kit),
      ...("cancel" in item ? (item.cancel ?? []) : []),
    ]),
  );
  for (const id of prompt?.wrongOn ?? []) ids.add(id);
  return kit.controls.filter(control => ids.has(control.id));
}

function KeepButton() {
  const pad = usePad();
  const workbench = useWorkbench();
  const [kept, setKept] = useState("");
  const isAwake = usePadState(state => state.session !== undefined);
  const keep = () => {
    const { session } = pad.getState();
    if (!session) return;
    pad.keep();
    const take = workbench.getState().takes.at(-1);
    if (take) setKept(`Kept as ${take.name}, ${(take.frames / take.rate).toFixed(1)} s.`);
  };
  return (
    <>
      <Button
        className="max-lg:whitespace-normal"
        disabled={!isAwake}
        onClick={event => {
          event.currentTarget.blur();
          keep();
        }}
      >
        Keep what was tried
      </Button>
      <span role="status" className="mt-1 block text-sm text-soft">
        {kept}
      </span>
    </>
  );
}

interface TryItProps {
  readonly kit: Kit;
  readonly pattern: Pattern | undefined;
  readonly moveId: string | undefined;
  readonly promptId: string | undefined;
}

/** Returns whether two states of the kit look the same here. */
function isSameTry(a: TryItProps, b: TryItProps): boolean {
  return (
    a.pattern === b.pattern &&
    a.moveId === b.moveId &&
    a.promptId === b.promptId &&
    a.kit.patterns === b.kit.patterns &&
    a.kit.prompts === b.kit.prompts &&
    a.kit.modes === b.kit.modes &&
    a.kit.controls === b.kit.controls &&
    a.kit.sticks === b.kit.sticks
  );
}

/** A place to try a rule beside its sentence, running the same live core as Play. */
export const TryIt = memo(function TryIt({ kit, pattern, moveId, promptId }: TryItProps) {
  const controls = pattern ? controlsOf(kit, pattern, promptId) : [];
  return (
    <aside
      aria-label="Try it here"
      className="flex flex-col gap-3 overflow-auto border-l border-line px-5 py-4 contain-strict max-lg:px-3 narrow:border-t narrow:border-l-0 narrow:contain-none"
      data-hands
    >
      <h2 className="text-sm font-semibold">Try it here</h2>
      {pattern ? (
        <>
          <div className="flex flex-wrap items-start justify-between gap-2">
            {controls.map(control => (
              <ControlPad key={control.id} control={control} isSmall={controls.length > 2} />
            ))}
            <MeterRing patternId={pattern.id} name={pattern.name} />
          </div>
          <ModeNow kit={kit} />
          <PromptsNow only={promptId} />
          {traitsOf(pattern.kind).carries.includes("value") && <ChargeBar pattern={pattern} />}
          <Rungs kit={kit} pattern={pattern} />
          <Ticker
            only={(kind, id) => (kind === "pattern" ? id === pattern.id || id === promptId : id === moveId)}
          />
          <p>
            <KeepButton />
          </p>
        </>
      ) : (
        <p className="text-sm text-soft">Open a pattern or a move to try it with your hands.</p>
      )}
    </aside>
  );
}, isSameTry);
