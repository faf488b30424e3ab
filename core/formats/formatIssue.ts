import { formatPath, type Issue, type IssueCode } from "./issue";

type Facts = Issue["facts"];

/** Formats a range of press lengths: "12f", "12f to 17f", "60f or more". */
function stretch({ from, to }: Facts): string {
  if (to === undefined) return `${from}f or more`;
  return from === to ? `${from}f` : `${from}f to ${to}f`;
}

/** The finding and the cure of each code, one line each. `formatIssue` adds the place. */
const SENTENCES: Record<IssueCode, (f: Facts) => string> = {
  dump: f => `'${f.found}' is not part of a value change dump here: ${f.hint}`,
  "not-json": f => `this is not JSON (${f.detail}): export it again, or mend it in a text editor`,
  "too-many-changes": f =>
    `${f.changes} changes and more are too many for one take, whose file could not be read again (${f.limit} at most): cut the recording into pieces`,
  "too-large": f => `${f.megabytes} MB is more than the ${f.limit} MB a file may have: cut the take shorter`,
  "too-full": f =>
    `its parts would take ${f.megabytes} MB of memory, more than the ${f.limit} MB a file may take: cut it into several`,
  "wrong-format": f => `${f.found} is not ${f.wanted}: choose a file that Moss Tap exported`,
  "too-new": f => `version ${f.found} is newer than ${f.known}, the newest known here: update Moss Tap`,
  "unknown-version": f => `${f.found} is not a version: write 1`,
  id: f =>
    `${f.found} cannot be an id: it is part of addresses and file names; use letters, digits and signs other than / ? # % and \\`,
  "long-text": f =>
    `has ${f.size} letters, more than the ${f.limit} that can be shown and kept here: shorten it`,
  many: f => `has ${f.size} items, more than the ${f.limit} that can be run and shown: take some out`,
  far: f => `${f.found} is out of reach: give a number from −1,000,000 to 1,000,000`,
  "past-takes": f => `${f.found} is more than the 17,280,000 frames the longest take may have: give less`,
  deep: f => `lists and objects are nested ${f.limit} deep or deeper: no document here is`,
  "long-at-rate": f =>
    `${f.frames} frames at the kit's ${f.rate} a second are more than the ${f.limit} that can be run: cut the take shorter`,
  "unknown-field": f => `${f.found} is not a field here: ${f.hint}`,
  missing: f => `is missing: ${f.hint}`,
  type: f => `${f.found} does not fit: ${f.wanted} is wanted`,
  length: f => `${f.found} is not a length: write 12f or 200ms`,
  "length-zero": f => `${f.found} is no time at all: write 1f or more`,
  empty: () => `is empty: name at least one`,
  whole: f => `${f.found} is not a whole number of ${f.atLeast} or more`,
  range: f => `${f.found} is out of range: give a number from ${f.low} to ${f.high}`,
  text: f => `${f.found} is not a text: write a word in quotes`,
  choice: f => `${f.found} is not a choice here: take one of ${f.wanted}`,
  code: f => `${f.found} is not a key or button: write one like key:KeyJ, pad:0, pad:axis0+ or mouse:0`,
  "no-variant": f => `${f.found} fits none of the forms: write one of ${f.wanted}`,
  rate: f => `${f.found} is not a rate: give whole frames a second from 1 to 1000`,
  order: f => `${f.found} comes after ${f.before}: times in a lane must not go back`,
  "duplicate-id": f => `"${f.id}" is already the name of another ${f.what}: give each its own id`,
  "unknown-id": f => `there is no ${f.what} "${f.id}": ${f.hint}`,
  "gate-above": f => `"${f.id}" is not above this gate in the list: move it up, or name another`,
  "gate-sources": f => `has ${f.found}: a gate takes one of all, any, none, while, fires and performs`,
  "output-gate": f =>
    `"${f.id}" is open while a move's output is on, so it cannot be ${f.what}: take another gate`,
  "gate-count": f =>
    f.found === "missing"
      ? `is missing: give how many it takes to open, 1 or more`
      : `counts nothing: name a pattern under fires or a move under performs, or take it away`,
  "full-not-above-from": f =>
    `full (${f.full} f) is not above from (${f.from} f) at this rate: make full longer or from shorter`,
  "release-above-press": f => `releaseAt ${f.release} is above pressAt ${f.press}: make it the same or lower`,
  "max-on-reach": () =>
    `a hold that fires when reached has no longest press: take max away, or fire on release`,
  "repeat-on-release": () => `a hold that fires on release cannot repeat: take repeat away, or fire on reach`,
  "when-field": f => `${f.pattern} carries no ${f.field}: use a pattern that does (${f.hint})`,
  "to-before-from": f => `to (${f.to}) is before from (${f.from}): make it the same or later`,
  "grade-name": f =>
    `a grade may not be called "${f.name}", which is an outcome of its own: take another word`,
  "levels-order": f =>
    `level "${f.name}" (${f.at} f) is below the one before it (${f.before} f): put them in order`,
  "ask-nothing": () => `asks for nothing: name at least one pattern as its answer`,
  curve: f => `${f.found} is not an easing curve: ${f.detail}`,
  "stick-same": f => `"${f.id}" is used for two directions: give each its own control`,
  dir: f => `${f.found} is not a direction: write stick:digit, the digit as on a number pad (1 to 9)`,
  "start-without-modes": () => `names a first mode, but the kit has no modes: add modes, or take it away`,
  "many-in-all": f =>
    `with this list the kit holds more than the ${f.limit} items in all lists that can be run and edited: take some out, here or in others`,
  "too-long-take": f => `${f.frames} frames are more than the ${f.limit} a take may have: cut it shorter`,
  "same-control": f => `names "${f.id}" twice: one control is pressed only once at a time`,
  "lane-value": f => `${f.found} is not a value here: ${f.wanted}`,
  frames: f => `${f.found} is not a number of frames: give 0 or more`,
  stage: f => `${f.found} does not fit the stage: ${f.wanted}`,
  "stage-draws": f =>
    `prompt "${f.id}" draws its answer itself: take it off this list, or its draw off the prompt`,
  "never-full": f =>
    `${f.name} can never be full: a press is lost past ${f.limit}f and full only at ${f.full}f; make the limit longer or full shorter`,
  "coyote-never": f =>
    `the coyote of ${f.name} never counts: ${f.reason}; take its ${f.frames}f away, or let the move work in more modes`,
  "buffer-never": f =>
    `the buffer of ${f.name} never counts: ${f.reason}; take its ${f.frames}f away, or let something keep the move waiting`,
  "dead-stretch": f =>
    `a press of ${f.control} held ${stretch(f)} ends in nothing: raise ${f.lower} or lower ${f.upper}`,
  "double-stretch": f =>
    `a press of ${f.control} held ${stretch(f)} is answered by both ${f.one} and ${f.other}: part their limits`,
  "long-buffer": f =>
    `the buffer waits for ${f.frames} f, longer than a second: it may act when it is no longer wanted`,
  "assist-beyond": f =>
    `${f.percent} % of the ${f.length} at ${f.place} is longer than a length can be: it stays at ${f.limit}${f.unit}`,
  "same-binding": f => `${f.code} plays both "${f.one}" and "${f.other}": give one of them another key`,
  "unreachable-move": f => `${f.name} can never be performed: ${f.reason}`,
  "need-never": f => `nothing in the kit opens ${f.name}: only a take painted by hand or the stage can`,
  "never-fires": f => `${f.name} can never fire: ${f.reason}`,
  "never-starts": f => `${f.name} is never shown: ${f.reason}`,
  "wrong-without-controls": () => `a wrong press fails this, but none is named: list them in wrongOn`,
  two: () => `is too short: name two events or more, in their order`,
  "check-none": f => `expects nothing: give it one of ${f.wanted}`,
  "check-two": f => `is a second expectation beside ${f.other}: give each a check of its own`,
  "check-value": f => `"${f.found}" can never be: ${f.hint}`,
  "min-above-max": f =>
    `${f.min} is above the max of ${f.max}: nothing can hold. Make it smaller, or the max larger`,
  "stretch-order": f =>
    `${f.to} is before ${f.from}, from which it looks: nothing lies between. Make it later`,
  "check-field": f => `${f.field} does not go with ${f.with}: take it out`,
  "shares-all-edges": f => `"${f.id}" is listed twice: once is enough`,
};

/**
 * Formats an issue as one sentence: the place, what was found, what is accepted, what to do. Example:
 * "patterns[2].for: '12' is not a length: write 12f or 200ms".
 */
export function formatIssue(issue: Issue): string {
  return `${formatPath(issue.path)}: ${formatFinding(issue)}`;
}

/** Formats an issue without its place, for use next to the field it concerns. */
export function formatFinding(issue: Issue): string {
  return SENTENCES[issue.code](issue.facts);
}
