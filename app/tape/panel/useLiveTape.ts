import { useEffect, useRef, type RefObject } from "react";
import { useWorkbench } from "../../document/workbenchContext";
import { usePad } from "../../input/context";
import type { LiveSession } from "../../input/liveSession";
import type { TapeController } from "../hand/tapeController";
import { arrangeRows, type RowsWanted } from "../model/arrangeRows";
import { createTapeBuilder, type TapeBuilder } from "../model/buildTape";

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
    return pad.subscribe(({ session }, before) => {
      if (!session || (session === before.session && session.state.frame === before.frame)) return;
      if (built.current?.session !== session)
        built.current = { session, builder: createTapeBuilder(session.rules) };
      const { settings } = workbench.getState();
      controller.current?.setModel(
        arrangeRows(built.current.builder.extend(session.trace), settings, { only }),
      );
    });
  }, [controller, isLive, only, pad, workbench]);
}
