import { trackStride, type Rules } from "#stage";
import type { LiveSession } from "./liveSession";

/** The most takes whose track is kept. */
const MAX_KEPT = 12;

/** The greatest difference of a value that is the same: tracks of runs are kept with less precision. */
const SLACK = 1e-3;

/** The tracks of takes during whose play the rules were changed, as they were seen. Kept as long as the page lives. */
export interface SeenTracks {
  /** Keeps the track of a session that became a take, if other rules were in force in it. */
  readonly keep: (takeId: string, session: Pick<LiveSession, "isPatched" | "rules" | "track">) => void;
  /** Returns the first frame on which a run of a take shows other bodies than were seen; undefined if there is none. */
  readonly differsFrom: (takeId: string, rules: Rules, track: Float32Array) => number | undefined;
}

/** Creates an empty store of seen tracks. */
export function createSeenTracks(): SeenTracks {
  const seen = new Map<string, { readonly kind: string; readonly track: Float32Array }>();
  return {
    keep(takeId, { isPatched, rules, track }) {
      if (!isPatched || !rules.stage) return;
      seen.set(takeId, { kind: rules.stage.kind, track: Float32Array.from(track) });
      if (seen.size > MAX_KEPT) seen.delete(seen.keys().next().value!);
    },
    differsFrom(takeId, rules, track) {
      const own = seen.get(takeId);
      const stride = trackStride(rules);
      if (!own || own.kind !== rules.stage?.kind || stride === 0) return undefined;
      const at = own.track.findIndex((value, k) => k < track.length && Math.abs(value - track[k]!) > SLACK);
      return at < 0 ? undefined : Math.floor(at / stride);
    },
  };
}
