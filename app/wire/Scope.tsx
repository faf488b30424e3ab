import { useState } from "react";
import { Link } from "react-router";
import { useStore } from "zustand";
import { countWords, ownValue } from "#core";
import { findCtrlClash } from "../input/browserKeys";
import { addControl } from "../edits/controlEdits";
import { Button } from "../ui/Button";
import { NextStep } from "../parts/NextStep";
import { ControlStrip } from "../parts/ControlStrip";
import type { PadsStatus } from "../input/gamepads";
import { useGradual } from "../ui/useGradual";
import { useNotices } from "../ui/noticesContext";
import { ControlLine } from "./ControlLine";
import { NO_ANSWERS, type PadDraft } from "./model/padSteps";
import { PadMapping } from "./PadMapping";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePad, usePadState } from "../input/context";

/** Describes the map of one pad, and offers to make one where it has an order of its own. */
function PadOrder({ item, onMap }: { item: PadsStatus["pads"][number]; onMap: () => void }) {
  const pad = usePad();
  const { notify } = useNotices();
  const map = useStore(pad.maps, maps => maps.find(each => each.pad === item.id));
  if (!map && item.isStandard) return <span className="text-soft">standard mapping</span>;
  if (!map)
    return (
      <span className="text-foxglove">
        no standard mapping: its buttons go by its own numbers{" "}
        <Button look="quiet" onClick={onMap}>
          Map it …
        </Button>
      </span>
    );
  const change = (act: () => void) => () => {
    act();
    pad.refreshPads();
  };
  const forget = () =>
    notify({
      tone: "plain",
      title: `The map of ${item.name} is deleted.`,
      details: [],
      action: { label: "Put it back", run: change(() => pad.maps.keep(map)) },
    });
  return (
    <span className="text-soft">
      mapped in this browser, {countWords(map.buttons.length, "button")} and{" "}
      {countWords(map.axes.length, "axis", "axes")}{" "}
      <Button look="quiet" aria-label={`Map ${item.name} again`} onClick={onMap}>
        Map again …
      </Button>
      <Button
        look="quiet"
        aria-label={`Delete the map of ${item.name}`}
        onClick={change(() => {
          pad.maps.forget(item.id);
          forget();
        })}
      >
        ×
      </Button>
    </span>
  );
}

/** Describes why no pad can be used. */
function PadWord() {
  const { hasApi, pads } = usePadState(state => state.pads);
  const [mapped, setMapped] = useState<PadsStatus["pads"][number]>();
  const [drafts, setDrafts] = useState<Readonly<Record<string, PadDraft>>>({});
  if (!hasApi)
    return (
      <span className="text-foxglove">
        This browser cannot read gamepads. Keys and the buttons below play.
      </span>
    );
  if (pads.length === 0) return <span className="text-soft">No gamepad found.</span>;
  return (
    <span data-testid="pads">
      {pads.map(item => (
        <span key={item.index} className="mr-3">
          <b>{item.name}</b> <PadOrder item={item} onMap={() => setMapped(item)} />
        </span>
      ))}
      {mapped && (
        <PadMapping
          item={mapped}
          draft={ownValue(drafts, mapped.id) ?? NO_ANSWERS}
          onDraft={draft => setDrafts(now => ({ ...now, [mapped.id]: draft }))}
          onClose={() => setMapped(undefined)}
        />
      )}
    </span>
  );
}

/** The scope: every control's current input, and its bindings. */
export function Scope() {
  const workbench = useWorkbench();
  const pad = usePad();
  const kit = useDocument(state => state.kit);
  const isAwake = usePadState(state => state.session !== undefined);
  const shown = useGradual(kit?.controls.length ?? 0);
  if (!kit) return null;
  const clash = findCtrlClash(kit.controls);
  return (
    <section aria-label="Controls" className="flex min-h-0 grow flex-col">
      <div className="min-h-0 grow overflow-auto px-6 pt-2" data-hands>
        <div className="flex flex-wrap items-baseline gap-x-4">
          <h1 className="font-serif text-2xl">Every control, and what plays it</h1>
          <p className="ml-auto min-w-0 text-right text-sm">
            <PadWord />
          </p>
          <Button look="quiet" disabled={!isAwake} onClick={() => pad.letAllGo()}>
            Release all
          </Button>
        </div>
        {kit.controls.length > 0 && (
          <NextStep view="wire" isDone={isAwake}>
            Start listening and press what is bound, or a button of a gamepad: each line shows what arrives.
          </NextStep>
        )}
        {clash && (
          <p className="text-sm text-foxglove" role="status">
            {clash.ctrl} is on Ctrl and {clash.other} on a key that closes or opens windows with it: the
            browser acts on the two together.
          </p>
        )}
        {kit.controls.length === 0 && (
          <p className="mt-2 text-soft">No control yet. Add one, then press the key that shall play it.</p>
        )}
        <ul>
          {kit.controls.slice(0, shown).map(control => (
            <ControlLine
              key={control.id}
              control={control}
              others={kit.controls.filter(item => item !== control)}
            />
          ))}
        </ul>
        <p className="mt-3 mb-4 flex items-center gap-4 text-sm">
          <Button
            onClick={() =>
              workbench.editKit("added a control", now =>
                addControl(now, `Control ${now.controls.length + 1}`),
              )
            }
          >
            Add a control
          </Button>
          <Link to="?wire=sticks" className="text-moss underline underline-offset-4">
            Make four of them a stick
          </Link>
        </p>
      </div>
      <div className="border-t border-line">
        <ControlStrip label="On-screen pad" controls={kit.controls} />
      </div>
    </section>
  );
}
