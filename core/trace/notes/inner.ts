import { EDGE, KEPT, IMPLIED, PART, PHASE, REQUEST, SPEED, TRAIL } from "../trace";
import { defineNote } from "./noteKind";

/** A control's cleaned edge: `isDown` 1 for a press, 0 for a release. */
export const edgeNote = defineNote("edge", EDGE, "controls", ["isDown"]);

/** A pattern's phase where it changes: `phase` as in the state. */
export const phaseNote = defineNote("phase", PHASE, "patterns", ["phase"]);

/** A request is made. Payload: its edges (see edgeList). */
export const requestNote = defineNote("request", REQUEST, "moves");

/**
 * A gate that no trace file mentions opens (`isOpen` 1) or closes (0): the output of a move, or the busy gate of a slot that a move needs
 * or is banned by.
 */
export const impliedNote = defineNote("implied", IMPLIED, "gates", ["isOpen"]);

/** The speed of the game clock where it changes, in percent. */
export const speedNote = defineNote("speed", SPEED, "none", ["percent"]);

/** A closed gate starts (`isOn` 1) or stops (0) being forgiven by some need. */
export const trailNote = defineNote("trail", TRAIL, "gates", ["isOn"]);

/** The timeline part of a slot where it changes: `part` is an index into PARTS. */
export const partNote = defineNote("part", PART, "moves", ["part"]);

/**
 * A press that something hides from other rules: `keeper` is its index, `isPrompt` 1 for a prompt, 0 for a
 * pattern.
 */
export const keptNote = defineNote("kept", KEPT, "controls", ["keeper", "isPrompt"]);
