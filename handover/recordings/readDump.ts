import { ownValue, type Mapping, type Result } from "#core";
import { readVcd } from "../waveform/readVcd";
import { createRecording, toFrames, type NamedTake, type ReadRecording } from "./createRecording";

/**
 * Reads a value change dump as a take through a mapping of its signals' paths. A bit is up or down, a real is
 * a value from 0 to 1, from −1 where the mapping has a control for values below 0; a vector is down unless it is 0, and the speed if it
 * is that. Signals the mapping does not know are skipped and reported.
 */
export function readDump(mapping: Mapping, text: string, named: NamedTake): Result<ReadRecording> {
  const dump = readVcd(text);
  if (!dump.ok) return dump;
  const { unitSeconds, signals, end } = dump.value;
  const { rate, speed } = mapping;
  const recording = createRecording(mapping);
  const at = (time: number) => toFrames(time * unitSeconds, "s", rate, unitSeconds);
  for (const { path, sort, changes } of signals)
    for (const [time, value] of changes) {
      if (ownValue(speed, path)) {
        recording.set(path, at(time), value, () => `#${time}`);
        continue;
      }
      const level = sort === "real" ? Math.min(1, Math.max(-1, value)) : value === 0 ? 0 : 1;
      recording.set(path, at(time), level, () => `#${time}`);
    }
  return recording.finish(named, Math.round(at(end)));
}
