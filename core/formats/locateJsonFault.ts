import { printParseErrorCode, visit } from "jsonc-parser";

/** The words for the faults that the parser names; others are named by `UNREADABLE`. */
const WORDS: Readonly<Record<string, string>> = {
  InvalidSymbol: "a word without quotes cannot be here",
  PropertyNameExpected: "the name of a field in quotes is expected",
  ValueExpected: "a value is expected",
  ColonExpected: "a colon is expected",
  CommaExpected: "a comma is expected",
  CloseBraceExpected: "a closing brace } is expected",
  CloseBracketExpected: "a closing bracket ] is expected",
  EndOfFileExpected: "nothing more is expected after the document",
  InvalidCommentToken: "a comment cannot be in JSON",
  UnexpectedEndOfString: "a text has no closing quote",
  InvalidUnicode: "this is no character after \\u",
  InvalidEscapeCharacter: "no character is written with this after a backslash",
  InvalidCharacter: "a text cannot hold this character",
  InvalidNumberFormat: "this is no number",
};
const UNREADABLE = "this cannot be read";

/** Returns the line and column, counted from 1, of a position in a text. */
function placeOf(source: string, offset: number): string {
  const before = source.slice(0, offset).split("\n");
  return `line ${before.length}, column ${before.at(-1)!.length + 1}`;
}

/**
 * Returns the place of the first fault of a text that is not JSON, and what is expected there: "line 3, column 14: a comma is
 * expected". Undefined if none is found, as for a text that is nested too deeply.
 */
export function locateJsonFault(source: string): string | undefined {
  let found: string | undefined;
  try {
    visit(
      source,
      {
        onError(error, offset) {
          found ??= `${placeOf(source, offset)}: ${WORDS[printParseErrorCode(error)] ?? UNREADABLE}`;
        },
      },
      { disallowComments: true, allowTrailingComma: false },
    );
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
  }
  return found;
}
