import { useEffect, useRef, type RefObject } from "react";
import { useWorkbench } from "../../document/workbenchContext";
import { usePad } from "../../input/context";
import type { LinkedSession } from "../../input/linkedSession";
import type { LiveSession } from "../../input/liveSession";
import type { TapeController } from "../hand/tapeController";
import { arrangeRows, listStirring, type RowsWanted } from "../model/arrangeRows";
import { createTapeBuilder, type TapeBuilder } from "../model/buildTape";

const gameHzOf = (session: LiveSession | LinkedSession) => ("gameHz" in session ? session.gameHz : undefined);
const actsIn = (session: LiveSession | LinkedSession) => ("acts" in session ? session.acts : []);

/** Draws the live session on the tape, frame by frame, without a render. */
export function useLiveTape(
  controller: RefObject<TapeController | undefined>,
  isLive: boolean,
  only: RowsWanted["only"],
): void {
  const workbench = useWorkbench();
  const pad = usePad();
  // Kept when other rows are requested, so that a long session is not read again for each rule that is
  // opened.
  const built = useRef<{ readonly session: LiveSession; readonly builder: TapeBuilder } | undefined>(
    undefined,
  );
  useEffect(() => {
    if (!isLive) {
      built.current = undefined;
      return;
    }
    let request = 0;
    const show = (session: LiveSession) => {
      cancelAnimationFrame(request);
      if (built.current?.session !== session)
        built.current = { session, builder: createTapeBuilder(session.rules, gameHzOf(session)) };
      const { settings } = workbench.getState();
      const model = built.current.builder.extend(session.trace, actsIn(session), session.track);
      // A running game has many rows; those with content leave room for what the game itself performed.
      const shown = only ?? ("gameHz" in session ? listStirring(model) : undefined);
      controller.current?.setModel(arrangeRows(model, settings, { only: shown }));
      // A long trace, as after a change of rules, is read over some pictures, also while the game is frozen.
      if (model.frames < session.trace.frames) request = requestAnimationFrame(() => showCurrent());
    };
    const showCurrent = () => {
      const { session } = pad.getState();
      if (session) show(session);
    };
    const stop = pad.subscribe(({ session }, before) => {
      if (session && (session !== before.session || session.state.frame !== before.frame)) show(session);
    });
    return () => {
      stop();
      cancelAnimationFrame(request);
    };
  }, [controller, isLive, only, pad, workbench]);
}
