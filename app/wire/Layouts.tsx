import { nanoid } from "nanoid";
import { useRef } from "react";
import { useStore } from "zustand";
import type { Kit, Layout } from "#core";
import { applyLayout, layoutOf } from "../edits/layoutEdits";
import { fileOf } from "#handover";
import { beginReading } from "../judging/reading";
import { download } from "../storage/files";
import { Button } from "../ui/Button";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import { usePad } from "../input/context";
import { useTakeAway } from "../document/useTakeAway";
import { useNotices } from "../ui/noticesContext";

function isInUse(kit: Kit, layout: Layout): boolean {
  return applyLayout(kit, layout).controls.every(
    (control, c) => JSON.stringify(control.bindings) === JSON.stringify(kit.controls[c]!.bindings),
  );
}

/** Returns the action that imports a layout file; it reports bindings of controls the kit lacks. */
function useLayoutImport(kit: Kit): (file: File) => Promise<void> {
  const workbench = useWorkbench();
  const workers = useWorkers();
  const { notify } = useNotices();
  const refuse = (name: string, details: readonly string[]) =>
    notify({ tone: "trouble", title: `${name} was not read as a layout.`, details });
  const add = (layout: Layout) => {
    workbench.editLayouts(`read layout ${layout.name}`, before => [...before, { ...layout, id: nanoid(8) }]);
    const strangers = Object.keys(layout.bindings).filter(
      id => !kit.controls.some(control => control.id === id),
    );
    notify({
      tone: "plain",
      title: `${layout.name} is among the layouts.`,
      details: strangers.map(id => `It binds "${id}", which this kit does not have: that is passed over.`),
    });
  };
  return async file => {
    for (const read of (await beginReading(workers, [file]).outcome) ?? []) {
      if (read.kind === "layout") add(read.layout);
      else if (read.kind === "refused") refuse(read.name, read.reasons);
      else if (read.kind === "passed") refuse(read.name, [read.why]);
      else refuse(read.name, [`It holds a ${read.kind}. The shelf reads those.`]);
    }
  };
}

/** One layout: its name, and the actions on it. */
function LayoutRow({ kit, layout }: { kit: Kit; layout: Layout }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const pad = usePad();
  const hasMissing = useStore(pad.maps, maps =>
    (layout.pads ?? []).some(own => !maps.some(map => map.pad === own.pad)),
  );
  const inUse = !hasMissing && isInUse(kit, layout);
  const rename = (typed: string) => {
    const name = typed.trim();
    if (name !== "" && name !== layout.name)
      workbench.editLayouts(`renamed ${name}`, before =>
        before.map(item => (item.id === layout.id ? { ...item, name } : item)),
      );
  };
  const putOn = () => {
    workbench.editKit(`put on ${layout.name}`, now => applyLayout(now, layout));
    if (pad.maps.keepMissing(layout.pads ?? []).length > 0) pad.refreshPads();
  };
  const remove = () =>
    takeAway(
      `${layout.name} is deleted.`,
      workbench.editLayouts(`deleted ${layout.name}`, before => before.filter(item => item.id !== layout.id)),
    );
  return (
    <li className="flex items-center border-b border-dotted border-line">
      <input
        aria-label={`Name of layout ${layout.name}`}
        className="w-28 min-w-0 grow truncate rounded bg-transparent px-1 py-0.5 focus:bg-leaf"
        defaultValue={layout.name}
        key={layout.name}
        onBlur={event => rename(event.target.value)}
        onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
      />
      <Button look="quiet" aria-label={`Put on ${layout.name}`} disabled={inUse} onClick={putOn}>
        {inUse ? "In use" : "Put on"}
      </Button>
      <Button
        look="quiet"
        aria-label={`Save ${layout.name} as a file`}
        onClick={() => download(fileOf(layout))}
      >
        Save
      </Button>
      <Button look="quiet" aria-label={`Delete layout ${layout.name}`} onClick={remove}>
        ×
      </Button>
    </li>
  );
}

/** Named sets of bindings: stored, applied while playing, exported and imported. */
export function Layouts({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const pad = usePad();
  const layouts = useDocument(state => state.layouts);
  const takeIn = useLayoutImport(kit);
  const picker = useRef<HTMLInputElement>(null);
  const keep = () =>
    workbench.editLayouts("kept a layout", before => [
      ...before,
      layoutOf(kit, nanoid(8), `Layout ${before.length + 1}`, pad.maps.getState()),
    ]);
  return (
    <section aria-label="Layouts" className="text-sm">
      <h2 className="font-semibold">Layouts</h2>
      {layouts.length === 0 && (
        <p className="text-soft">Keep the present keys under a name, to swap them while playing.</p>
      )}
      <ul>
        {layouts.map(layout => (
          <LayoutRow key={layout.id} kit={kit} layout={layout} />
        ))}
      </ul>
      <p className="mt-2 flex gap-2">
        <Button onClick={keep}>Keep these keys</Button>
        <Button look="quiet" onClick={() => picker.current?.click()}>
          Read a file …
        </Button>
        <input
          ref={picker}
          type="file"
          accept=".json,application/json"
          className="sr-only"
          aria-label="Read a layout file"
          data-testid="layout-picker"
          onChange={event => {
            const [file] = event.target.files ?? [];
            if (file) void takeIn(file);
            event.target.value = "";
          }}
        />
      </p>
    </section>
  );
}
