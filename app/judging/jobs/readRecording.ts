import {
  buffersOf,
  formatIssue,
  packTake,
  parseTake,
  type Mapping,
  type PackedTake,
  type Result,
} from "#core";
import {
  decodeText,
  feedTable,
  parseTable,
  readDump,
  TABLE_HEAD_BYTES,
  type NamedTake,
  type ReadRecording,
} from "#handover";
import type { Job, JobTools } from "./job";
import { createProgressReporter } from "./slices";

/** The result of reading a recording: the packed take with unrecognised items, or the reasons for failure. */
export type RecordingAnswer =
  | ({ readonly take: PackedTake } & Omit<ReadRecording, "take">)
  | { readonly reasons: readonly string[] };

interface Question {
  readonly file: File;
  readonly mapping: Mapping;
  readonly named: NamedTake;
}

/** The maximum size of a dump, whose text is read at once. */
const DUMP_LIMIT_BYTES = 256 * 1024 * 1024;

async function read({ file, mapping, named }: Question, tools: JobTools): Promise<Result<ReadRecording>> {
  if (mapping.sort === "dump") {
    if (file.size > DUMP_LIMIT_BYTES) {
      const megabytes = Math.ceil(file.size / 2 ** 20);
      const facts = { megabytes, limit: DUMP_LIMIT_BYTES / 2 ** 20 };
      return { ok: false, issues: [{ code: "too-large", severity: "fault", path: [], facts }] };
    }
    return readDump(mapping, decodeText(new Uint8Array(await file.arrayBuffer())), named);
  }
  const feed = feedTable(mapping);
  const reportProgress = createProgressReporter(tools);
  const head = new Uint8Array(await file.slice(0, TABLE_HEAD_BYTES).arrayBuffer());
  await parseTable(file, head, feed, done => {
    reportProgress(done, file.size);
    return tools.yieldNow();
  });
  return feed.finish(named);
}

/** Reads a recording from another program through a mapping, and reports progress. */
export const readRecordingJob: Job<Question, RecordingAnswer> = async (question, _takes, tools) => {
  const found = await read(question, tools);
  const checked = found.ok ? parseTake(found.value.take) : found;
  if (!checked.ok) return { value: { reasons: checked.issues.map(formatIssue) } };
  const take = packTake(checked.value);
  const rest = found.ok ? found.value : { notes: [], leftOut: 0, strangers: [] };
  return { value: { ...rest, take }, transfer: buffersOf(take) };
};
