import type { PointerEvent } from "react";
import { indexOfId, type Control } from "#core";
import { formatBinding } from "../input/codes";
import { usePad, usePadState } from "../input/context";
import type { PadState } from "../input/padState";
import { followPointer } from "../ui/followPointer";
import { LiveText } from "../ui/LiveText";

/** The distance of the grip's full range. */
const PULL_PX = 56;

/** Returns how long a control has been down in the live session, in frames; 0 while it is up. */
function heldFrames({ session }: PadState, controlId: string): number {
  if (!session) return 0;
  const c = indexOfId(session.program.controls, controlId);
  return c >= 0 && session.state.down[c] === 1 ? session.state.frame - session.state.pressFrame[c]! + 1 : 0;
}

/** Returns whether a control is down in the live session. */
export const useIsDown = (controlId: string): boolean =>
  usePadState(state => heldFrames(state, controlId) > 0);

/** How long a control has been down in the live session: "12f"; "up" while it is not. */
export function HeldTime({ controlId }: { controlId: string }) {
  return (
    <LiveText
      store={usePad()}
      read={state => {
        const frames = heldFrames(state, controlId);
        return frames > 0 ? `${frames}f` : "up";
      }}
    />
  );
}

/** Returns a control's current analog value, 0 to 1, in hundredths. */
export function useValue(controlId: string): number {
  return usePadState(({ session }) => {
    const c = session ? indexOfId(session.program.controls, controlId) : -1;
    return c >= 0 ? Math.round(session!.values[c]! * 100) / 100 : 0;
  });
}

/** The grip below a control: pulling it down sets an analog value. */
function PullGrip({ control }: { control: Control }) {
  const pad = usePad();
  const value = useValue(control.id);
  const pull = (event: PointerEvent<HTMLDivElement>) => {
    event.preventDefault();
    const fromY = event.clientY;
    const letGo = () => pad.holdOnScreen([control.id, 0]);
    followPointer(event, {
      move: moved =>
        pad.holdOnScreen([control.id, Math.max(0, Math.min(1, (moved.clientY - fromY) / PULL_PX))]),
      end: letGo,
      cancel: letGo,
    });
  };
  return (
    <div
      role="slider"
      aria-label={`Pull ${control.name}`}
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuenow={value}
      tabIndex={-1}
      data-testid={`pull-${control.id}`}
      className="relative flex h-4 w-16 cursor-ns-resize touch-none items-center justify-center rounded-b-lg border-x-2 border-b-2 border-line"
      onPointerDown={pull}
    >
      <span
        className="absolute inset-y-0 left-0 rounded-bl-md bg-fern"
        style={{ width: `${value * 100}%` }}
        aria-hidden
      />
      <span className="relative h-0.5 w-6 bg-soft" aria-hidden />
    </div>
  );
}

/**
 * A control of the on-screen pad, held while pressed by mouse, touch or pen. The small form has a grip for
 * analog values. Pressing it wakes the pad.
 */
export function ControlPad({ control, isSmall = false }: { control: Control; isSmall?: boolean }) {
  const pad = usePad();
  const isDown = useIsDown(control.id);
  const letGo = () => pad.holdOnScreen([control.id, 0]);
  return (
    <div className="flex max-w-[min(10rem,100%)] shrink-0 flex-col items-center">
      <button
        type="button"
        title={control.name}
        aria-pressed={isDown}
        className={`max-w-full touch-none ${isSmall ? "min-h-10 min-w-20 py-1 text-sm" : "min-h-16 min-w-24 py-2"} rounded-stone border-2 px-4 font-semibold select-none ${isDown ? "border-bark bg-bark text-leaf" : "border-ink bg-leaf"}`}
        onPointerDown={event => {
          event.preventDefault();
          followPointer(event, { move: () => undefined, end: letGo, cancel: letGo });
          pad.holdOnScreen([control.id, 1]);
        }}
        onContextMenu={event => event.preventDefault()}
      >
        <span className={isSmall ? "block truncate" : "line-clamp-2 break-words"}>{control.name}</span>
        {!isSmall && (
          <span className={`block font-mono text-sm font-normal ${isDown ? "" : "text-soft"}`}>
            <HeldTime controlId={control.id} />
          </span>
        )}
      </button>
      {isSmall ? (
        <PullGrip control={control} />
      ) : (
        <span className="mt-1 text-xs text-soft">
          {control.bindings[0] ? formatBinding(control.bindings[0]) : "not bound"}
        </span>
      )}
    </div>
  );
}
