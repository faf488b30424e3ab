import { BOUNDS, indexOfId, writeAt, type Control } from "#core";
import { formatBinding } from "../input/codes";
import { removeControl } from "../edits/controlEdits";
import { HeldTime, useIsDown, useValue } from "../parts/ControlPad";
import { IdStone } from "../parts/IdStone";
import { BindButton, setBindings } from "./BindButton";
import { ValueRiver } from "./ValueRiver";
import { useWorkbench } from "../document/workbenchContext";
import { usePadState } from "../input/context";
import { useTakeAway } from "../document/useTakeAway";

/** A disc that is full while the control is down; a notch marks the frame of each edge. */
function Lamp({ controlId }: { controlId: string }) {
  const isDown = useIsDown(controlId);
  const edge = usePadState(({ session }) => {
    const c = session ? indexOfId(session.program.controls, controlId) : -1;
    if (!session || c < 0 || session.state.down[c] === session.state.was[c]) return "";
    return session.state.down[c] === 1 ? "down" : "up";
  });
  return (
    <svg aria-hidden width="29" height="24" viewBox="0 0 34 28" className="shrink-0">
      <ellipse
        cx="17"
        cy="14"
        rx="13"
        ry="10"
        strokeWidth="2"
        className={isDown ? "fill-bark stroke-bark" : "fill-leaf stroke-soft"}
      />
      {edge !== "" && (
        <path
          d={edge === "down" ? "M11 1h12l-6 6z" : "M11 27h12l-6 -6z"}
          className="fill-lichen stroke-ink"
        />
      )}
    </svg>
  );
}

function Held({ controlId }: { controlId: string }) {
  const isDown = useIsDown(controlId);
  const value = useValue(controlId);
  return (
    <span className="flex w-[5.25rem] shrink-0 items-baseline gap-2 font-mono text-sm whitespace-nowrap">
      <span className={`w-11 text-right ${isDown ? "" : "text-soft"}`} data-testid={`held-${controlId}`}>
        <HeldTime controlId={controlId} />
      </span>
      <span className="text-soft" data-testid={`value-${controlId}`}>
        {value.toFixed(2)}
      </span>
    </span>
  );
}

/** One control of the scope: its lamp, its held time, its value against its thresholds, and its bindings. */
export function ControlLine({ control, others }: { control: Control; others: readonly Control[] }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const rename = (typed: string) => {
    const name = typed.trim();
    if (name === "" || name === control.name) return;
    workbench.editKit(`renamed ${name}`, kit =>
      writeAt(kit, ["controls", kit.controls.findIndex(item => item.id === control.id), "name"], name),
    );
  };
  const remove = () => {
    takeAway(
      `${control.name} is deleted. Rules that use it are marked in Shape.`,
      workbench.editKit(`deleted ${control.name}`, kit => removeControl(kit, control.id)),
    );
  };
  return (
    <li className="flex min-h-[36px] items-center gap-2.5 border-b border-line py-0.5 max-xl:flex-wrap">
      <Lamp controlId={control.id} />
      <input
        maxLength={BOUNDS.nameLetters}
        aria-label={`Name of ${control.name}`}
        title={control.name}
        className="w-24 shrink-0 truncate rounded bg-transparent px-1 py-0.5 font-semibold focus:bg-leaf max-xl:w-0 max-xl:min-w-24 max-xl:shrink max-xl:grow"
        defaultValue={control.name}
        key={control.name}
        onBlur={event => rename(event.target.value)}
        onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
      />
      <Held controlId={control.id} />
      <ValueRiver control={control} />
      <ul className="flex min-w-0 grow flex-wrap items-center gap-1 max-xl:order-last max-xl:basis-full">
        {control.bindings.map((binding, b) => (
          <li
            key={binding.join()}
            className="flex items-center rounded-lg border border-edge bg-leaf pl-1.5 font-mono text-xs"
          >
            {formatBinding(binding)}
            <button
              type="button"
              aria-label={`Take ${formatBinding(binding)} off ${control.name}`}
              className="px-1 py-1.5 text-soft hover:text-foxglove"
              onClick={() =>
                setBindings(
                  workbench,
                  control,
                  control.bindings.filter((_, k) => k !== b),
                )
              }
            >
              ×
            </button>
          </li>
        ))}
        <li>
          <BindButton control={control} others={others} />
        </li>
        <li className="ml-auto">
          <IdStone list="controls" id={control.id} name={control.name} isOffer />
        </li>
      </ul>
      <button
        type="button"
        aria-label={`Delete control ${control.name}`}
        className="px-1 text-soft hover:text-foxglove"
        onClick={remove}
      >
        ×
      </button>
    </li>
  );
}
