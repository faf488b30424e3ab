import type { Control } from "#core";
import { formatBinding } from "../devices/codes";
import { holdOnScreen, wakePad, pad } from "../devices/pad";
import { usePad } from "../devices/usePad";

/** How long a control has been down in the live session, in frames; 0 while it is up. */
export function useHeldFrames(controlId: string): number {
  return usePad(({ session }) => {
    if (!session) return 0;
    const c = session.program.controls.findIndex(control => control.id === controlId);
    return c >= 0 && session.state.down[c] === 1 ? session.state.frame - session.state.pressFrame[c]! + 1 : 0;
  });
}

/** A control on the on-screen pad: held while pressed by mouse, touch or pen. Pressing it wakes the pad. */
export function ControlPad({ control }: { control: Control }) {
  const heldFrames = useHeldFrames(control.id);
  const isDown = heldFrames > 0;
  const letGo = () => holdOnScreen(control.id, false, performance.now());
  return (
    <div className="flex flex-col items-center gap-1">
      <button
        type="button"
        aria-pressed={isDown}
        className={`min-h-16 max-w-48 min-w-24 py-2 touch-none rounded-stone border-2 px-4 font-semibold select-none ${isDown ? "border-bark bg-bark text-leaf" : "border-ink bg-leaf"}`}
        onPointerDown={event => {
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          if (!pad.getState().session) wakePad();
          holdOnScreen(control.id, true, performance.now());
        }}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onContextMenu={event => event.preventDefault()}
      >
        {control.name}
        <span className={`block font-mono text-sm font-normal ${isDown ? "" : "text-soft"}`}>
          {isDown ? `${heldFrames}f` : "up"}
        </span>
      </button>
      <span className="text-xs text-soft">
        {control.bindings[0] ? formatBinding(control.bindings[0]) : "not bound"}
      </span>
    </div>
  );
}
