import { useRef, useState, type DragEvent } from "react";
import { useNavigate, useRevalidator } from "react-router";
import { useStore } from "zustand";
import { countWords, type Check, type Kit, type Take } from "#core";
import type { ReadFile } from "#handover";
import { loadReaders } from "../judging/reading";
import { Logo } from "../shell/Logo";
import { ThemeButton } from "../shell/ThemeButton";
import { PrefetchViews } from "../shell/PrefetchViews";
import type { Library } from "../storage/library";
import { isBroken, type Broken, type KitRecord } from "../storage/records";
import { documentOf } from "../storage/shelf";
import { loadTakenSheet } from "../takeIn/loadTakenSheet";
import { TakingInBoard } from "../takeIn/TakingInBoard";
import { useTakingIn } from "../takeIn/useTakingIn";
import { Button } from "../ui/Button";
import { NotFetchedError } from "../ui/fetchPart";
import { useStored } from "../storage/context";
import { useNotices } from "../ui/noticesContext";
import { BrokenCard, KitCard } from "./KitCard";
import { loadSavePack, loadTakeIn } from "./loadParts";
import { TakePicture } from "./TakePicture";

interface Demo {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly checks: readonly Check[];
}

/** The parts that the shelf loads when they are needed. */
const PARTS = [loadReaders, loadSavePack, loadTakeIn, loadTakenSheet];

const GRID = "mt-6 grid grid-cols-[repeat(auto-fill,minmax(min(300px,100%),1fr))] gap-5";

/** Returns the actions of the shelf's page. */
function useShelf() {
  const { shelf } = useStored();
  const { notify } = useNotices();
  const { revalidate } = useRevalidator();
  const navigate = useNavigate();
  const open = async (
    { kit, takes, checks }: { kit: Kit; takes: readonly Take[]; checks: readonly Check[] },
    change: string,
  ) => {
    const { kitId } = await shelf.add(documentOf(kit, takes, checks), change);
    await navigate(`/kit/${encodeURIComponent(kitId)}/play`);
  };
  return {
    open,
    async place(read: readonly ReadFile[]) {
      try {
        const { takeIn } = await loadTakeIn();
        return await takeIn(read, { shelf, notify, onChange: () => void revalidate() });
      } catch (error) {
        if (!(error instanceof NotFetchedError)) throw error;
        const title = "The files were not read. The shelf is as it was.";
        notify({ tone: "trouble", title, details: [error.message] });
        return [];
      }
    },
    takeOff: async ({ id, name, raw }: { id: string; name: string; raw?: unknown }) => {
      const taken = await shelf.takeOff(id);
      await revalidate();
      notify({
        tone: "plain",
        title: `${name} is off the shelf.`,
        details: [],
        ...(taken
          ? {
              action: {
                label: "Put it back",
                run: () => void shelf.putBack(taken).then(() => revalidate()),
              },
            }
          : raw === undefined
            ? {}
            : { action: { label: "Save it as a file", run: () => notify.saveRaw(name, raw) } }),
      });
    },
  };
}

function DemoCard({ demo, onOpen }: { demo: Demo; onOpen: () => void }) {
  return (
    <li className="rounded-stone border border-dashed border-soft">
      <TakePicture kit={demo.kit} take={demo.takes.at(-1)} />
      <div className="flex items-center justify-between px-4 py-3">
        <p>
          <span className="block font-serif text-lg font-semibold">{demo.kit.name}</span>
          <span className="text-sm text-soft">demo, {countWords(demo.takes.length, "take")}</span>
        </p>
        <Button onClick={onOpen} aria-label={`Open demo ${demo.kit.name}`}>
          Open demo
        </Button>
      </div>
    </li>
  );
}

/** A line in place of the kits while the storage does not answer. */
function SlowShelf() {
  const { storage } = useStored();
  const isSlow = useStore(storage, state => state.trouble === "slow");
  if (!isSlow) return null;
  return <p className="mt-6 text-soft">Your kits appear here as soon as the browser's storage answers.</p>;
}

/** The end of the shelf: what can be dropped on it, and what the application is made of. */
function ShelfEnd() {
  return (
    <>
      <p className="mt-8 rounded-stone border-2 border-dashed border-line p-5 text-center text-soft">
        Drop kit and take files anywhere on this page. Everything stays in this browser until you save it as a
        file.
      </p>
      <p className="mt-4 text-center text-sm text-soft">
        <a href="/notices.txt" className="underline-offset-4 hover:underline">
          Licences of the packages and fonts inside
        </a>
      </p>
    </>
  );
}

/** The shelf of kits. Open a demo, start a new kit, or drop a file. */
export function ShelfView({
  demos,
  kits,
  library,
}: {
  /** Undefined while the server does not respond. */
  demos: readonly Demo[] | undefined;
  kits: readonly (KitRecord | Broken)[];
  library: Library | undefined;
}) {
  const { open, place, takeOff } = useShelf();
  const taking = useTakingIn(place);
  const navigate = useNavigate();
  const picker = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    taking.begin([...event.dataTransfer.files]);
  };

  return (
    <div
      className={`min-h-[calc(100dvh-var(--notices-px))] ${isOver ? "bg-sand" : ""}`}
      onDragOver={event => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <PrefetchViews parts={PARTS} />
      <header className="flex h-14 items-center justify-between border-b border-line px-5">
        <Logo />
        <ThemeButton />
      </header>
      <main className="mx-auto max-w-[1120px] px-6 py-8 narrow:px-4 narrow:py-4">
        <div className="flex items-end justify-between gap-6 narrow:flex-wrap narrow:gap-3">
          <div>
            <h1 className="font-serif text-3xl font-semibold">The shelf</h1>
            <p className="text-soft">
              A kit is all the timing rules of one game or character, with the takes that were played for it.
            </p>
          </div>
          <p className="flex gap-2">
            <Button onClick={() => picker.current?.click()}>Read files …</Button>
            <Button look="strong" onClick={() => void navigate("/new")}>
              New kit
            </Button>
            <input
              ref={picker}
              type="file"
              multiple
              accept=".json,application/json,.zip,application/zip"
              className="sr-only"
              aria-label="Read kit and take files"
              data-testid="file-picker"
              onChange={event => {
                taking.begin([...(event.target.files ?? [])]);
                event.target.value = "";
              }}
            />
          </p>
        </div>
        <div className="mt-4 empty:hidden">
          <TakingInBoard taking={taking} isShortListElsewhere />
        </div>
        {library && kits.length === 0 && <SlowShelf />}
        {kits.length > 0 && library && (
          <ul className={GRID} aria-label="Kits">
            {kits.map(entry =>
              isBroken(entry) ? (
                <BrokenCard key={`broken ${entry.id}`} broken={entry} onDelete={() => void takeOff(entry)} />
              ) : (
                <KitCard
                  key={entry.id}
                  record={entry}
                  library={library}
                  onDelete={({ id, kit }) => void takeOff({ id, name: kit.name })}
                />
              ),
            )}
          </ul>
        )}
        <h2 className="mt-10 font-serif text-xl font-semibold">Examples</h2>
        <p className="text-soft">
          {demos
            ? "Ready to play, with takes that went well and takes that did not."
            : "The demos are not to be had: the server they come from does not answer. Your kits are here all the same."}
        </p>
        <ul className={GRID} aria-label="Demos">
          {demos?.map(demo => (
            <DemoCard
              key={demo.kit.id}
              demo={demo}
              onOpen={() => void open(demo, "opened from the belfry")}
            />
          ))}
        </ul>
        <ShelfEnd />
      </main>
    </div>
  );
}
