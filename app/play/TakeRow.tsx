import { nanoid } from "nanoid";
import { BOUNDS, type Take } from "#core";
import { useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";
import { convertTake, copyTake } from "../edits/takeEdits";
import { Button } from "../ui/Button";

const FIELDS = { player: "played by", device: "on" } as const;

/** The player, device and note of a take; an emptied field is removed. */
function TakeDetails({ take }: { take: Take }) {
  const workbench = useWorkbench();
  const set = (key: "player" | "device" | "note", typed: string) => {
    const { [key]: was, ...rest } = take;
    const value = typed.trim();
    if (value === (was ?? "")) return;
    workbench.editTake(`${key} of ${take.name}`, take.id, () =>
      value === "" ? rest : { ...rest, [key]: value },
    );
  };
  const look = "min-w-0 rounded border-b border-line bg-transparent px-1 font-normal focus:bg-leaf";
  return (
    <div className="flex basis-full flex-wrap items-baseline gap-x-2 px-2 pb-1 font-normal text-soft">
      {(Object.keys(FIELDS) as (keyof typeof FIELDS)[]).map(key => (
        <label key={key} className="flex min-w-0 items-baseline gap-1">
          {FIELDS[key]}
          <input
            key={take[key]}
            maxLength={BOUNDS.nameLetters}
            defaultValue={take[key]}
            placeholder="not given"
            aria-label={`${key === "player" ? "Player" : "Device"} of ${take.name}`}
            className={`${look} w-24 text-ink`}
            onBlur={event => set(key, event.target.value)}
            onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
          />
        </label>
      ))}
      <label className="flex basis-full items-baseline gap-1">
        note
        <textarea
          key={take.note}
          rows={1}
          maxLength={BOUNDS.noteLetters}
          defaultValue={take.note}
          placeholder="none"
          aria-label={`Note on ${take.name}`}
          className={`${look} grow resize-none text-ink`}
          style={{ fieldSizing: "content", maxHeight: "8em" }}
          onBlur={event => set("note", event.target.value)}
        />
      </label>
    </div>
  );
}

/** The player and note of a take, in a line; nothing if unknown. */
function KnownOf({ player, device, note }: Take) {
  const words = [player && `by ${player}`, device && `on ${device}`, note].filter(Boolean).join(" · ");
  if (words === "") return null;
  return (
    <span className="basis-full truncate px-2 text-soft" title={words}>
      {words}
    </span>
  );
}

/**
 * One take of the list: its name, player and length; opened, copied, converted to the kit's rate, deleted.
 */
export function TakeRow({ take, isOpen, rate }: { take: Take; isOpen: boolean; rate: number }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const rename = (typed: string) => {
    const name = typed.trim();
    if (name && name !== take.name) workbench.editTake(`renamed ${name}`, take.id, was => ({ ...was, name }));
  };
  return (
    <li
      className={`flex flex-wrap items-center gap-x-1 border-b border-dotted border-line py-1 ${isOpen ? "font-semibold" : ""}`}
    >
      <input
        maxLength={BOUNDS.nameLetters}
        aria-label={`Name of ${take.name}`}
        className="min-w-0 basis-full truncate rounded bg-transparent px-2 py-0.5 focus:bg-leaf"
        defaultValue={take.name}
        key={take.name}
        onBlur={event => rename(event.target.value)}
        onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
      />
      {isOpen ? <TakeDetails take={take} /> : <KnownOf {...take} />}
      <span className="shrink-0 grow px-2 font-mono font-normal whitespace-nowrap text-soft">
        {(take.frames / take.rate).toFixed(1)} s
      </span>
      {take.rate !== rate && (
        <Button
          look="quiet"
          className="text-foxglove"
          onClick={() => workbench.editTake(`converted ${take.name}`, take.id, was => convertTake(was, rate))}
        >
          {take.rate} Hz: bring to {rate}
        </Button>
      )}
      <Button
        look="quiet"
        onClick={() => workbench.openTake(take.id)}
        disabled={isOpen}
        aria-label={`Open ${take.name}`}
      >
        Open
      </Button>
      <Button
        look="quiet"
        aria-label={`Copy ${take.name}`}
        onClick={() =>
          workbench.addTake(copyTake(take, nanoid(8), `${take.name}, copy`), `copied ${take.name}`)
        }
      >
        Copy
      </Button>
      <Button
        look="quiet"
        aria-label={`Delete ${take.name}`}
        onClick={() => takeAway(`${take.name} is deleted.`, workbench.removeTake(take.id))}
      >
        Delete
      </Button>
    </li>
  );
}
