import { stageKind, trackStride, type Rules } from "#stage";
import { addSpan, closeSpan, createRow, type TapeRow } from "./tapeRows";

/** The rows of what the bodies of a stage do by themselves. */
export interface StageRows {
  readonly rows: readonly TapeRow[];
  /** Reads the frames of a track that are new, up to a frame (exclusive). */
  readonly extend: (track: ArrayLike<number>, frames: number) => void;
}

/** Creates the rows of a stage; none without a stage, and for one whose bodies only follow the rules. */
export function createStageRows(rules: Rules): StageRows {
  const kinds = rules.stage ? (stageKind(rules.stage.kind).rows ?? []) : [];
  const rows = kinds.map(kind => createRow("stage", kind));
  const stride = trackStride(rules);
  const states = kinds.map(() => -1);
  let read = 0;
  return {
    rows,
    extend(track, frames) {
      const until = rows.length === 0 ? 0 : Math.min(frames, track.length / stride);
      for (; read < until; read++)
        kinds.forEach((kind, k) => {
          const state = kind.stateAt(track, read * stride, (read - 1) * stride);
          if (state === states[k]) return;
          if (states[k]! >= 0) closeSpan(rows[k]!, read);
          const { look, words } = kind.states[state] ?? {};
          if (look) addSpan(rows[k]!, read, Infinity, look, look === "named" ? words : "");
          states[k] = state;
        });
    },
  };
}
