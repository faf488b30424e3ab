import { useRef, useState, type DragEvent } from "react";
import { Link, useSubmit } from "react-router";
import { createTrace, notes, type Kit, type Take, type Trace } from "#core";
import { Logo } from "../shell/Logo";
import { say } from "../ui/notices";
import { ThemeButton } from "../shell/ThemeButton";
import { compileFresh } from "../judging/compileFresh";
import { freshId } from "../edits/edits";
import { download, readFile } from "../storage/files";
import type { KitRecord } from "../storage/library";
import type { ShelfChange } from "../document/shelfChanges";
import { LONG_TAKE_FRAMES } from "../judging/judged";
import { evaluateOnce } from "../document/workbench";
import { Button } from "../ui/Button";

interface Shelved {
  readonly record: KitRecord;
  readonly takes: readonly Take[];
}

interface Demo {
  readonly kit: Kit;
  readonly takes: readonly Take[];
}

const NO_TRACE: Trace = createTrace(60, 2);

/** A small picture of a take: its presses in bark, what was performed as stones, what was lost as gaps. */
function TakePicture({ kit, take }: { kit: Kit; take: Take | undefined }) {
  const program = compileFresh(kit);
  const isLong = take !== undefined && take.frames > LONG_TAKE_FRAMES;
  const trace = program && take && !isLong ? evaluateOnce(program, take).trace : NO_TRACE;
  const width = 320;
  const per = width / Math.max(1, trace.frames);
  const bars: { x: number; w: number; row: number }[] = [];
  const stones: { x: number; isLost: boolean }[] = [];
  const downAt = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    if (trace.kind[i] === notes.EDGE) {
      if (trace.payload[trace.at[i]!] === 1) downAt.set(subject, frame);
      else
        bars.push({
          x: (downAt.get(subject) ?? 0) * per,
          w: (frame - (downAt.get(subject) ?? 0)) * per,
          row: subject,
        });
    }
    if (trace.kind[i] === notes.PERFORMED || trace.kind[i] === notes.FIRE)
      stones.push({ x: frame * per, isLost: false });
    if (trace.kind[i] === notes.LOST && trace.payload[trace.at[i]! + 1] !== notes.BEATEN)
      stones.push({ x: frame * per, isLost: true });
  }
  const rows = Math.max(1, kit.controls.length);
  return (
    <svg viewBox={`0 0 ${width} 76`} className="block w-full rounded-t-[12px] bg-sand" aria-hidden>
      {bars.map((bar, i) => (
        <rect
          key={i}
          x={bar.x}
          width={Math.max(2, bar.w)}
          y={10 + (bar.row * 36) / rows}
          height={Math.min(7, 30 / rows)}
          rx="2"
          className="fill-bark"
        />
      ))}
      {stones.map((stone, i) =>
        stone.isLost ? (
          <path
            key={i}
            d={`M${stone.x - 3} 64a4.5 4.5 0 1 1 6 0`}
            fill="none"
            strokeWidth="2"
            className="stroke-foxglove"
          />
        ) : (
          <ellipse key={i} cx={stone.x} cy="61" rx="4.5" ry="3.5" className="fill-moss" />
        ),
      )}
      {(!take || isLong) && (
        <text x="160" y="42" textAnchor="middle" className="fill-soft text-sm">
          {take ? `a long take, ${Math.round(take.frames / take.rate / 60)} min` : "no take yet"}
        </text>
      )}
    </svg>
  );
}

function formatWhen(ms: number): string {
  const minutes = Math.round((Date.now() - ms) / 60_000);
  if (minutes < 1) return "just now";
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 60 * 24) return `${Math.round(minutes / 60)} h ago`;
  return new Date(ms).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}

function KitCard({ shelved, change }: { shelved: Shelved; change: (change: ShelfChange) => void }) {
  const { record, takes } = shelved;
  const { kit } = record;
  const remove = () => {
    change({ does: "delete", kitId: record.id });
    const { rows, variants, layouts } = record;
    const extras = {
      ...(rows ? { rows } : {}),
      ...(variants ? { variants } : {}),
      ...(layouts ? { layouts } : {}),
    };
    const putBack = () => change({ does: "add", kit, takes, open: false, change: "put back", extras });
    say({
      tone: "plain",
      title: `${kit.name} is off the shelf.`,
      details: [],
      action: { label: "Put it back", run: putBack },
    });
  };
  return (
    <li className="flex flex-col rounded-stone border border-line bg-leaf" data-testid={`kit-${record.id}`}>
      <Link to={`/kit/${record.id}/play`} className="block rounded-t-stone">
        <TakePicture kit={kit} take={takes.at(-1)} />
        <span className="block px-4 pt-3">
          <span className="block font-serif text-xl font-semibold">{kit.name}</span>
          <span className="block text-sm text-soft">
            {kit.patterns.length + (kit.moves?.length ?? 0)} rules · {takes.length}{" "}
            {takes.length === 1 ? "take" : "takes"} · {kit.rate} frames a second
          </span>
          <span className="block text-sm text-soft">
            {record.change || "added"}, {formatWhen(record.changedAt)}
          </span>
        </span>
      </Link>
      <p className="mt-2 flex gap-1 px-2 pb-2">
        <Button
          look="quiet"
          onClick={() => [kit, ...takes].forEach(download)}
          aria-label={`Save files of ${kit.name}`}
        >
          Save files
        </Button>
        <Button look="quiet" onClick={remove} aria-label={`Delete ${kit.name}`}>
          Delete
        </Button>
      </p>
    </li>
  );
}

function newKit(): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: freshId(`kit-${Date.now().toString(36)}`, new Set()),
    name: "New kit",
    rate: 60,
    controls: [{ id: "tap", name: "Tap", bindings: [["key:Space"], ["pad:0"]] }],
    patterns: [{ id: "tap-hold", name: "Tap hold", kind: "hold", control: "tap", for: "18f", fire: "reach" }],
  };
}

/** The shelf: where kits live. Open a demo, start anew, or drop a file. */
export function ShelfView({ demos, kits }: { demos: readonly Demo[]; kits: readonly Shelved[] }) {
  const submit = useSubmit();
  const picker = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const change = (wanted: ShelfChange) =>
    void submit(JSON.parse(JSON.stringify(wanted)), { method: "post", encType: "application/json" });

  const takeIn = async (files: readonly File[]) => {
    const read = await Promise.all(files.map(readFile));
    const takes = read.flatMap(file => (file.kind === "take" ? [file.take] : []));
    const added = read.flatMap(file => (file.kind === "kit" ? [file.kit] : []));
    for (const kit of added) {
      const own = takes.filter(take => take.kit === kit.id || added.length === 1);
      await submit(
        JSON.parse(JSON.stringify({ does: "add", kit, takes: own, open: false, change: "read from a file" })),
        { method: "post", encType: "application/json" },
      );
      say({
        tone: "plain",
        title: `${kit.name} is on the shelf${own.length > 0 ? `, with ${own.length} ${own.length === 1 ? "take" : "takes"}` : ""}.`,
        details: [],
      });
    }
    for (const take of added.length === 0 ? takes : []) {
      const home = kits.find(shelved => shelved.record.id === take.kit);
      if (home) {
        await submit(JSON.parse(JSON.stringify({ does: "add-take", kitId: home.record.id, take })), {
          method: "post",
          encType: "application/json",
        });
        say({ tone: "plain", title: `${take.name} is with ${home.record.kit.name}.`, details: [] });
      } else {
        say({
          tone: "trouble",
          title: `${take.name} has no kit here.`,
          details: [
            `It was recorded for "${take.kit ?? "no kit"}". Read that kit in first, or drop both files together.`,
          ],
        });
      }
    }
    for (const file of read) {
      if (file.kind === "layout")
        say({
          tone: "trouble",
          title: `${file.layout.name} is a layout of keys.`,
          details: ["Open a kit and read it in at Wire, under Keys."],
        });
      if (file.kind === "refused")
        say({
          tone: "trouble",
          title: `${file.name} was not read. The shelf is as it was.`,
          details: file.reasons,
        });
    }
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void takeIn([...event.dataTransfer.files]);
  };

  return (
    <div
      className={`min-h-dvh ${isOver ? "bg-sand" : ""}`}
      onDragOver={event => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <header className="flex h-14 items-center justify-between border-b border-line px-5">
        <Logo />
        <ThemeButton />
      </header>
      <main className="mx-auto max-w-[1120px] px-6 py-8">
        <div className="flex items-end justify-between gap-6">
          <div>
            <h1 className="font-serif text-3xl font-semibold">The shelf</h1>
            <p className="text-soft">
              A kit is all the timing rules of one game or character, with the takes that were played for it.
            </p>
          </div>
          <p className="flex gap-2">
            <Button onClick={() => picker.current?.click()}>Read files …</Button>
            <Button
              look="strong"
              onClick={() => change({ does: "add", kit: newKit(), takes: [], open: true, change: "new" })}
            >
              New kit
            </Button>
            <input
              ref={picker}
              type="file"
              multiple
              accept=".json,application/json"
              className="sr-only"
              aria-label="Read kit and take files"
              data-testid="file-picker"
              onChange={event => {
                void takeIn([...(event.target.files ?? [])]);
                event.target.value = "";
              }}
            />
          </p>
        </div>
        {kits.length > 0 && (
          <ul className="mt-6 grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-5" aria-label="Kits">
            {kits.map(shelved => (
              <KitCard key={shelved.record.id} shelved={shelved} change={change} />
            ))}
          </ul>
        )}
        <h2 className="mt-10 font-serif text-xl font-semibold">From the belfry</h2>
        <p className="text-soft">Ready to play, with takes that went well and takes that did not.</p>
        <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-5" aria-label="Demos">
          {demos.map(demo => (
            <li key={demo.kit.id} className="rounded-stone border border-dashed border-soft">
              <TakePicture kit={demo.kit} take={demo.takes.at(-1)} />
              <div className="flex items-center justify-between px-4 py-3">
                <p>
                  <span className="block font-serif text-lg font-semibold">{demo.kit.name}</span>
                  <span className="text-sm text-soft">demo, {demo.takes.length} takes</span>
                </p>
                <Button
                  onClick={() =>
                    change({
                      does: "add",
                      kit: demo.kit,
                      takes: demo.takes,
                      open: true,
                      change: "opened from the belfry",
                    })
                  }
                  aria-label={`Open demo ${demo.kit.name}`}
                >
                  Open demo
                </Button>
              </div>
            </li>
          ))}
        </ul>
        <p className="mt-8 rounded-stone border-2 border-dashed border-line p-5 text-center text-soft">
          Drop kit and take files anywhere on this page. Everything stays in this browser until you save it as
          a file.
        </p>
      </main>
    </div>
  );
}
