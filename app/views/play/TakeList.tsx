import { BOUNDS } from "#core";
import { nanoid } from "nanoid";
import { convertTake, copyTake } from "../../edits/takeEdits";
import { Button } from "../../ui/Button";
import { useDesk, useDocument } from "../../document/context";
import { useTakeAway } from "../../document/useTakeAway";

/** The takes of the kit: how long, which is open; renamed, copied, brought to the kit's rate, deleted. */
export function TakeList() {
  const { workbench } = useDesk();
  const takeAway = useTakeAway();
  const rename = (id: string, name: string) =>
    workbench.editTake(`renamed ${name}`, id, take => ({ ...take, name }));
  const takes = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
  const rate = useDocument(state => state.kit?.rate ?? 60);
  if (takes.length === 0)
    return (
      <p className="text-sm text-soft">
        No takes yet. Record one: it is judged anew at every change of a rule.
      </p>
    );
  return (
    <ul className="text-sm">
      {takes.map(take => (
        <li
          key={take.id}
          className={`flex flex-wrap items-center gap-x-1 border-b border-dotted border-line py-1 ${take.id === openId ? "font-semibold" : ""}`}
        >
          <input
            maxLength={BOUNDS.nameLetters}
            aria-label={`Name of ${take.name}`}
            className="min-w-0 basis-full truncate rounded bg-transparent px-2 py-0.5 focus:bg-leaf"
            defaultValue={take.name}
            key={take.name}
            onBlur={event =>
              event.target.value.trim() &&
              event.target.value !== take.name &&
              rename(take.id, event.target.value.trim())
            }
            onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
          />
          <span className="shrink-0 grow px-2 font-mono font-normal whitespace-nowrap text-soft">
            {(take.frames / take.rate).toFixed(1)} s
          </span>
          {take.rate !== rate && (
            <Button
              look="quiet"
              className="text-foxglove"
              onClick={() =>
                workbench.editTake(`converted ${take.name}`, take.id, was => convertTake(was, rate))
              }
            >
              {take.rate} Hz: bring to {rate}
            </Button>
          )}
          <Button
            look="quiet"
            onClick={() => workbench.openTake(take.id)}
            disabled={take.id === openId}
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
      ))}
    </ul>
  );
}
