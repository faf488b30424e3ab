import { BOUNDS } from "#core";
import { nanoid } from "nanoid";
import { useState } from "react";
import { cleanSheet, SHEET_SECONDS } from "../../edits/goals/beginKit";
import { convertTake, copyTake } from "../../edits/takeEdits";
import { useTape } from "../../tape/hand/context";
import { Button } from "../../ui/Button";
import { NumberStone } from "../../ui/NumberStone";
import { useDesk, useDocument } from "../../document/context";
import { useTakeAway } from "../../document/useTakeAway";

/** The longest sheet to paint on, in seconds: longer takes are played. */
const LONGEST_SHEET = 600;

/** An empty take to paint on, of a chosen length; it is opened with the brush in hand. */
function CleanSheet() {
  const { workbench } = useDesk();
  const { look } = useTape();
  const [seconds, setSeconds] = useState(SHEET_SECONDS);
  const takes = useDocument(state => state.takes);
  const add = () => {
    const { kit } = workbench.getState();
    if (!kit) return;
    const count = takes.filter(take => take.name.startsWith("A clean sheet")).length;
    const name = count === 0 ? "A clean sheet" : `A clean sheet ${count + 1}`;
    workbench.addTake(cleanSheet(kit, seconds, nanoid(8), name), `added ${name}`);
    look.setState({ tool: "paint" });
  };
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-1 text-sm">
      <Button look="quiet" className="-ml-2" onClick={add}>
        A clean sheet to paint on
      </Button>
      of{" "}
      <NumberStone
        label="seconds of the clean sheet"
        value={seconds}
        least={0.5}
        most={LONGEST_SHEET}
        onChange={setSeconds}
        beginStep={() => ({ end: () => undefined, cancel: () => setSeconds(seconds) })}
      />{" "}
      s
    </p>
  );
}

/** The takes of the kit: how long, which is open; renamed, copied, brought to the kit's rate, deleted. */
export function TakeList() {
  const { workbench } = useDesk();
  const takeAway = useTakeAway();
  const rename = (id: string, name: string) =>
    workbench.editTake(`renamed ${name}`, id, take => ({ ...take, name }));
  const takes = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
  const rate = useDocument(state => state.kit?.rate ?? 60);
  return (
    <>
      {takes.length === 0 && (
        <p className="text-sm text-soft">
          No takes yet. Record one: it is judged anew at every change of a rule.
        </p>
      )}
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
      <CleanSheet />
    </>
  );
}
