import { useEffect, useRef, useState, type DragEvent } from "react";
import { useLocation } from "react-router";
import { isRecordingName, type ReadFile } from "#handover";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePad } from "../input/context";
import { takeInHere } from "../document/takeInHere";
import { Button } from "../ui/Button";
import { MapRecording } from "../takeIn/MapRecording";
import { TakingInBoard } from "../takeIn/TakingInBoard";
import { useTakingIn } from "../takeIn/useTakingIn";

/** The imports of the open kit: takes, rounds of a playable page, checks, layouts, and recordings to map. */
export function TakeInSection() {
  const workbench = useWorkbench();
  const pad = usePad();
  const kit = useDocument(state => state.kit);
  const picker = useRef<HTMLInputElement>(null);
  const section = useRef<HTMLElement>(null);
  const { hash } = useLocation();
  useEffect(() => {
    if (hash !== "#import") return;
    section.current?.scrollIntoView({ block: "nearest" });
    section.current?.querySelector("button")?.focus({ preventScroll: true });
  }, [hash]);
  const [isOver, setOver] = useState(false);
  /** Recordings waiting to be mapped; the first one is open. */
  const [waiting, setWaiting] = useState<readonly File[]>([]);
  const taking = useTakingIn((read: readonly ReadFile[]) => Promise.resolve(takeInHere(workbench, read)));
  const begin = (files: readonly File[]) => {
    // Typing into a dialog must not play the kit.
    pad.sleep();
    setWaiting(was => [...was, ...files.filter(file => isRecordingName(file.name))]);
    taking.begin(files.filter(file => !isRecordingName(file.name)));
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    begin([...event.dataTransfer.files]);
  };
  const [first] = waiting;
  return (
    <section
      ref={section}
      id="import"
      aria-label="Take in"
      className={`relative mt-6 rounded-stone border-2 border-dashed p-3 ${isOver ? "border-moss bg-sand" : "border-line"}`}
      onDragOver={event => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <div className="flex items-center gap-3">
        <div>
          <h2 className="font-serif text-xl">Import</h2>
          <p className="text-sm text-soft">
            Drop it here: rounds of a playable page, takes, checks, layouts; or a recording of the game, as
            CSV or as a value change dump.
          </p>
        </div>
        <Button onClick={() => picker.current?.click()}>Read files …</Button>
      </div>
      <input
        ref={picker}
        type="file"
        multiple
        accept=".json,.zip,.csv,.tsv,.vcd"
        className="sr-only"
        aria-label="Read what came back"
        data-testid="take-in-picker"
        tabIndex={-1}
        onChange={event => {
          begin([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
      <div className="mt-2 empty:hidden">
        <TakingInBoard taking={taking} />
      </div>
      {kit && first && (
        <MapRecording
          key={`${first.name} ${waiting.length}`}
          file={first}
          kit={kit}
          onClose={() => setWaiting(was => was.slice(1))}
        />
      )}
    </section>
  );
}
