import { nanoid } from "nanoid";
import { useState } from "react";
import { Link } from "react-router";
import { BOUNDS, countWords, type Take } from "#core";
import { cleanSheet, SHEET_SECONDS } from "../edits/cleanSheet";
import { useTape } from "../tape/hand/context";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { NumberStone } from "../ui/NumberStone";
import { useStudySettings } from "../document/studiesContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { filterTakes, listFilters } from "./model/takeFilter";
import { TakeRow } from "./TakeRow";
import { noStep } from "../ui/noStep";

/** The maximum length of an empty take, in seconds. */
const LONGEST_SHEET = 600;

/** Creates an empty take of a chosen length and opens it with the brush active. */
function CleanSheet() {
  const workbench = useWorkbench();
  const { look } = useTape();
  const [seconds, setSeconds] = useState(SHEET_SECONDS);
  const takes = useDocument(state => state.takes);
  const add = () => {
    const { kit } = workbench.getState();
    if (!kit) return;
    const count = takes.filter(take => take.name.startsWith("Empty take")).length;
    const name = count === 0 ? "Empty take" : `Empty take ${count + 1}`;
    workbench.addTake(cleanSheet(kit, seconds, nanoid(8), name), `added ${name}`);
    look.setState({ tool: "paint" });
  };
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-1 text-sm">
      <Button look="quiet" className="-ml-2" onClick={add}>
        An empty take to paint on
      </Button>
      of{" "}
      <NumberStone
        label="seconds of the empty take"
        value={seconds}
        least={0.5}
        most={LONGEST_SHEET}
        onChange={setSeconds}
        beginStep={() => noStep(() => setSeconds(seconds))}
      />{" "}
      s
    </p>
  );
}

/** Leads to the import of takes and recordings from files. */
function FromFiles() {
  const kitId = useDocument(state => state.kit?.id ?? "");
  return (
    <p className="mt-1 text-sm">
      <Link
        to={`/kit/${encodeURIComponent(kitId)}/hand-over#import`}
        className="text-moss underline-offset-4 hover:underline"
      >
        Takes or a recording from files
      </Link>
    </p>
  );
}

/** The number of rows drawn at first; with more takes there is a search field. */
const FEW = 40;
const MANY = 8;

/** The filter of the list, as editable words; nothing if there are few takes and none differ. */
function FilterLine({ takes, shown }: { takes: readonly Take[]; shown: number }) {
  const [filter, set] = useStudySettings("takeList");
  const choices = listFilters(takes);
  if (choices.length === 1 && takes.length <= MANY) return null;
  return (
    <p className="mb-1 flex flex-wrap items-baseline gap-x-2 text-sm">
      {choices.length > 1 && (
        <ChoiceWord
          label="listed"
          value={choices.some(({ value }) => value === filter.by) ? filter.by : "all"}
          choices={choices}
          onChoose={by => set({ ...filter, by })}
        />
      )}
      <input
        type="search"
        aria-label="Find takes"
        placeholder="find"
        value={filter.words}
        className="min-w-0 grow basis-24 rounded border border-edge bg-leaf px-2 py-0.5"
        onChange={event => set({ ...filter, words: event.target.value })}
      />
      {shown < takes.length && (
        <span className="font-mono text-soft">
          {shown} of {takes.length}
        </span>
      )}
    </p>
  );
}

const KNOWN_BY = { player: "played by", device: "on" } as const;

/** Gives all listed takes a player or a device at once, as one step of undo. */
function NameListed({ listed }: { listed: readonly Take[] }) {
  const workbench = useWorkbench();
  if (listed.length < 2) return null;
  const set = (key: keyof typeof KNOWN_BY, typed: string) => {
    const value = typed.trim();
    const ids = new Set(listed.map(({ id }) => id));
    if (value !== "")
      workbench.edit(`${key} of ${countWords(listed.length, "take")}`, document => ({
        ...document,
        takes: document.takes.map(take => (ids.has(take.id) ? { ...take, [key]: value } : take)),
      }));
  };
  return (
    <p className="mt-1 flex flex-wrap items-baseline gap-x-2 text-sm text-soft" data-testid="name-listed">
      All {listed.length} listed:
      {(Object.keys(KNOWN_BY) as (keyof typeof KNOWN_BY)[]).map(key => (
        <label key={key} className="flex min-w-0 items-baseline gap-1">
          {KNOWN_BY[key]}
          <input
            maxLength={BOUNDS.nameLetters}
            placeholder="a name"
            title="Enter gives it to all of them"
            aria-label={`${key === "player" ? "Player" : "Device"} of all listed takes`}
            className="w-20 min-w-0 rounded border-b border-line bg-transparent px-1 text-ink focus:bg-leaf"
            onKeyDown={event => {
              if (event.key !== "Enter") return;
              set(key, event.currentTarget.value);
              event.currentTarget.value = "";
            }}
          />
        </label>
      ))}
    </p>
  );
}

/**
 * The takes of the kit: player, length and which one is open; searched, renamed, copied, converted to the
 * kit's rate, deleted.
 */
export function TakeList() {
  const takes = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
  const rate = useDocument(state => state.kit?.rate ?? 60);
  const [filter] = useStudySettings("takeList");
  const [isWhole, setWhole] = useState(false);
  const found = filterTakes(takes, filter);
  const shown = isWhole ? found : found.slice(0, FEW);
  return (
    <>
      {takes.length === 0 && (
        <p className="text-sm text-soft">
          No takes yet. Record one: it is judged again at every change of a rule.
        </p>
      )}
      <FilterLine takes={takes} shown={found.length} />
      {takes.length > 0 && found.length === 0 && (
        <p className="text-sm text-soft">No take is like that. Find by other words, or list all.</p>
      )}
      <ul className="text-sm">
        {shown.map(take => (
          <TakeRow key={take.id} take={take} isOpen={take.id === openId} rate={rate} />
        ))}
      </ul>
      {shown.length < found.length && (
        <Button look="quiet" className="-ml-2" onClick={() => setWhole(true)}>
          Show {found.length - shown.length} more
        </Button>
      )}
      <NameListed listed={found} />
      <CleanSheet />
      <FromFiles />
    </>
  );
}
