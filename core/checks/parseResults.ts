import type { Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { resultsSchema, type ResultsDocument } from "./results";

/** The results format and its newest version. */
const RESULTS_FORMAT: DocumentFormat<ResultsDocument> = {
  format: "moss-tap/results",
  version: 1,
  schema: resultsSchema as unknown as DocumentFormat<ResultsDocument>["schema"],
  forward: {},
};

/** Parses an unknown value as results of checks. */
export function parseResults(input: unknown): Result<ResultsDocument> {
  return parseDocument(RESULTS_FORMAT, input);
}
