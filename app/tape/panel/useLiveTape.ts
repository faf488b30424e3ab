import { useEffect, type RefObject } from "react";
import { useDesk } from "../../document/context";
import { usePad } from "../../input/context";
import type { LiveSession } from "../../input/liveSession";
import type { TapeController } from "../hand/tapeController";
import { arrangeRows, type RowsWanted } from "../model/arrangeRows";
import { createTapeBuilder, type TapeBuilder } from "../model/buildTape";

/** While hands play, what they play runs over the tape, frame by frame, without a render. */
export function useLiveTape(
  controller: RefObject<TapeController | undefined>,
  isLive: boolean,
  only: RowsWanted["only"],
): void {
  const { workbench } = useDesk();
  const pad = usePad();
  useEffect(() => {
    if (!isLive) return;
    let built: { readonly session: LiveSession; readonly builder: TapeBuilder } | undefined;
    return pad.subscribe(({ session }, before) => {
      if (!session || (session === before.session && session.state.frame === before.frame)) return;
      if (built?.session !== session) built = { session, builder: createTapeBuilder(session.rules) };
      const { rows } = workbench.getState();
      controller.current?.setModel(arrangeRows(built.builder.extend(session.trace), rows, { only }));
    });
  }, [controller, isLive, only, pad, workbench]);
}
