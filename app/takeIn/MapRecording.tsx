import { nanoid } from "nanoid";
import { useEffect, useMemo, useRef, useState } from "react";
import { BOUNDS, unpackGently, type Kit, type Mapping, type Take } from "#core";
import { decodeText, listMapped, textFile } from "#handover";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import type { JobHandle } from "../judging/jobs/jobs";
import { download } from "../storage/files";
import { rememberMappings } from "../storage/records";
import { Button } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import { LanesPicture } from "./LanesPicture";
import { beginMapping, glanceAt, GLANCE_BYTES, learnWords, previewOf, type Glance } from "./model/mapping";
import { MappingSentence } from "./MappingSentence";
import { SourceList } from "./SourceList";

const ROWS_SHOWN = 5;
const NOTES_SHOWN = 24;
/** The time limit for reading a dump, during which the worker gives no sign of life. */
const DUMP_MS = 120_000;

/** The first rows of a table, as in the file. */
function FirstRows({ glance }: { glance: Glance }) {
  if (glance.sort !== "table") return null;
  return (
    <div className="mt-3 overflow-auto rounded-stone border border-line">
      <table aria-label="First rows" className="w-full font-mono text-xs">
        <thead>
          <tr className="bg-sand text-left">
            {glance.head.map((name, k) => (
              <th key={k} scope="col" className="px-2 py-1 font-semibold whitespace-nowrap">
                {name || "(no name)"}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {glance.rows.slice(0, ROWS_SHOWN).map((row, r) => (
            <tr key={r} className="border-t border-line">
              {glance.head.map((_, k) => (
                <td key={k} className="px-2 py-0.5 whitespace-nowrap">
                  {row[k]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Notes({ word, notes }: { word: string; notes: readonly string[] }) {
  if (notes.length === 0) return null;
  return (
    <section aria-label={word} className="mt-3 text-sm">
      <h3 className="font-semibold text-foxglove">{word}</h3>
      <ul className="max-h-32 overflow-auto">
        {notes.slice(0, NOTES_SHOWN).map((note, k) => (
          <li key={k} className="break-words">
            {note}
          </li>
        ))}
        {notes.length > NOTES_SHOWN && <li>and {notes.length - NOTES_SHOWN} more</li>}
      </ul>
    </section>
  );
}

/** The player and device of a recording, if known. */
interface Whose {
  readonly name: string;
  readonly player: string;
  readonly device: string;
}

const WHOSE_WORDS = { name: "Name of the take", player: "Player", device: "Device" } as const;

function WhoseLine({ whose, onChange }: { whose: Whose; onChange: (whose: Whose) => void }) {
  return (
    <p className="mt-3 flex flex-wrap gap-3 text-sm text-soft">
      {(Object.keys(WHOSE_WORDS) as (keyof Whose)[]).map(key => (
        <label key={key} className="min-w-0 grow basis-40">
          {WHOSE_WORDS[key]}
          <input
            maxLength={BOUNDS.nameLetters}
            value={whose[key]}
            placeholder={key === "name" ? undefined : "not given"}
            className="block w-full rounded-stone border border-edge bg-leaf px-3 py-1 text-ink"
            onChange={event => onChange({ ...whose, [key]: event.target.value })}
          />
        </label>
      ))}
    </p>
  );
}

/** Reads the beginning of a file. */
function useGlance(file: File): Glance | undefined {
  const [seen, setSeen] = useState<{ of: File; glance: Glance }>();
  useEffect(() => {
    let isGone = false;
    const see = (glance: Glance) => isGone || setSeen({ of: file, glance });
    file
      .slice(0, GLANCE_BYTES)
      .arrayBuffer()
      .then(
        bytes => see(glanceAt(file.name, decodeText(new Uint8Array(bytes)))),
        (error: unknown) =>
          see({ sort: "broken", reasons: [error instanceof Error ? error.message : String(error)] }),
      );
    return () => void (isGone = true);
  }, [file]);
  return seen?.of === file ? seen.glance : undefined;
}

/** Reads the whole file and returns its progress and result. */
function useReading(file: File) {
  const { jobs, yieldToUi } = useWorkers();
  const [share, setShare] = useState<number>();
  const asked = useRef<JobHandle<"readRecording">>(undefined);
  useEffect(() => () => asked.current?.stop(), []);
  async function read(mapping: Mapping, named: { id: string; name: string; kit: string }) {
    setShare(0);
    const question = { file, mapping, named };
    const begun = jobs.ask({
      job: "readRecording",
      question,
      takes: [],
      quietMs: DUMP_MS,
      onProgress: ({ done, of }) => setShare(done / Math.max(1, of)),
    });
    asked.current = begun;
    const outcome = await begun.outcome;
    setShare(undefined);
    if (outcome.state === "stopped") return undefined;
    if (outcome.state === "failed") return { reasons: [outcome.reason] };
    const { value } = outcome;
    if ("reasons" in value) return value;
    return { ...value, take: (await unpackGently(value.take, yieldToUi)) as Take };
  }
  return { share, read, stop: () => asked.current?.stop() };
}

const given = (key: "player" | "device", value: string) =>
  value.trim() === "" ? {} : { [key]: value.trim() };

/** Shows the result of a mapping for the previewed rows. */
function Preview({ kit, glance, mapping }: { kit: Kit; glance: Glance; mapping: Mapping }) {
  const preview = useMemo(() => previewOf(glance, mapping), [glance, mapping]);
  if ("reasons" in preview) return <Notes word="It cannot be read like this" notes={preview.reasons} />;
  return (
    <>
      <h3 className="mt-4 text-sm font-semibold">Preview of its lanes: the first seconds</h3>
      <LanesPicture kit={kit} take={preview.take} />
      <Notes word="Not recognised in the preview" notes={preview.notes} />
    </>
  );
}

/**
 * A recording from another program beside its preview: which of its columns, names or signals play which
 * controls, and the unit of its times. It is imported as a take of the open kit, unrecognised items are
 * listed, and the mapping is stored.
 */
export function MapRecording({ file, kit, onClose }: { file: File; kit: Kit; onClose: () => void }) {
  const workbench = useWorkbench();
  const glance = useGlance(file);
  const used = useDocument(state => state.settings.mappings);
  const begun = useMemo(() => glance && beginMapping(kit, glance, used ?? []), [kit, glance, used]);
  const [changed, setChanged] = useState<Mapping>();
  const [whose, setWhose] = useState<Whose>({
    name: file.name.replace(/\.\w+$/, "").slice(0, BOUNDS.nameLetters),
    player: "",
    device: "",
  });
  const [ended, setEnded] = useState<
    { readonly reasons: readonly string[] } | { readonly notes: readonly string[]; readonly leftOut: number }
  >();
  const [met, setMet] = useState<readonly string[]>([]);
  const { share, read, stop } = useReading(file);
  const mapping = changed ?? begun;

  async function takeIn(by: Mapping): Promise<void> {
    setEnded(undefined);
    const name = whose.name.trim() || file.name;
    const id = nanoid(8);
    const found = await read(by, { id, name, kit: kit.id });
    if (!found) return;
    if ("reasons" in found) return setEnded(found);
    const { device, player } = whose;
    workbench.addTake(
      { ...found.take, ...given("player", player), ...given("device", device) },
      `read in ${name}`,
    );
    // It may have been refused, for example because another tab has the kit; the notice explains why.
    if (!workbench.getState().takes.some(take => take.id === id))
      return setEnded({ reasons: ["the kit may not be changed in this tab"] });
    const learned = learnWords(by, found.strangers);
    setMet(found.strangers);
    setChanged(learned);
    workbench.updateKitSettings(settings => rememberMappings(settings, [learned]));
    if (found.notes.length === 0) onClose();
    else setEnded({ notes: found.notes, leftOut: found.leftOut });
  }
  const save = (by: Mapping) =>
    download(
      textFile(
        `${whose.name || "recording"}.mapping.json`,
        `${JSON.stringify(by, null, 2)}\n`,
        "application/json",
      ),
    );

  return (
    <Sheet title={`Read in ${file.name}`} isOpen isWide onClose={onClose}>
      {!glance && <p role="status">Looking into it…</p>}
      {glance?.sort === "broken" && <Notes word="It cannot be read" notes={glance.reasons} />}
      {glance && mapping && (
        <>
          <MappingSentence kit={kit} glance={glance} mapping={mapping} onChange={setChanged} />
          <FirstRows glance={glance} />
          <SourceList kit={kit} glance={glance} mapping={mapping} met={met} onChange={setChanged} />
          {!(ended && "notes" in ended) && <Preview kit={kit} glance={glance} mapping={mapping} />}
          <WhoseLine whose={whose} onChange={setWhose} />
          {ended && "notes" in ended && (
            <p role="status" className="mt-3 font-semibold">
              {ended.leftOut > 0
                ? `It is read in with ${ended.leftOut} ${ended.leftOut === 1 ? "row" : "rows"} left out, and open on the tape.`
                : "It is read in, and open on the tape."}
            </p>
          )}
          {ended && (
            <Notes
              word={"notes" in ended ? "Left out, not recognised" : "It was not read in"}
              notes={"notes" in ended ? ended.notes : ended.reasons}
            />
          )}
          <div className="mt-4 flex flex-wrap items-center gap-3">
            {share === undefined ? (
              <Button
                look="strong"
                disabled={listMapped(mapping).length === 0}
                onClick={() => void takeIn(mapping)}
              >
                {ended && "notes" in ended ? "Read it in once more" : "Read it in"}
              </Button>
            ) : (
              <>
                <progress aria-label="Read so far" className="grow" value={share} max={1} />
                <Button onClick={stop}>Cancel</Button>
              </>
            )}
            <Button onClick={() => save(mapping)}>Save this mapping</Button>
            <span className="text-sm text-soft">
              It is remembered with the kit, and read by the import command.
            </span>
          </div>
        </>
      )}
    </Sheet>
  );
}
