import type { AskedKind } from "./notes/asked";
import { firedNote } from "./notes/fired";
import { gateNote } from "./notes/gate";
import {
  edgeNote,
  keptNote,
  impliedNote,
  partNote,
  phaseNote,
  requestNote,
  speedNote,
  trailNote,
} from "./notes/inner";
import { lapsedNote } from "./notes/lapsed";
import { lostNote } from "./notes/lost";
import { modeNote } from "./notes/mode";
import { phasedNote } from "./notes/phased";
import { performedNote } from "./notes/performed";
import { promptNote } from "./notes/prompt";

/** The kinds of note that are events of trace files, by their name there. */
export const eventNotes = {
  mode: modeNote,
  gate: gateNote,
  fired: firedNote,
  lapsed: lapsedNote,
  prompt: promptNote,
  performed: performedNote,
  lost: lostNote,
} as const;

/** The kinds of event that checks can ask for, by their name in a trace file: also phases. */
export const askableNotes = { ...eventNotes, phase: phasedNote } as const;

/** Every kind of note, by name: its code, its subject, and a reader for each number of its payload. */
export const notes = {
  ...eventNotes,
  edge: edgeNote,
  phase: phaseNote,
  phased: phasedNote,
  request: requestNote,
  speed: speedNote,
  trail: trailNote,
  part: partNote,
  implied: impliedNote,
  kept: keptNote,
} as const;

export type NoteName = keyof typeof notes;
export type EventName = keyof typeof askableNotes;

/** Returns how a check asks for a kind of event. */
export function askedKind(kind: EventName): AskedKind {
  return askableNotes[kind].asked;
}
