import { fetchPart } from "../ui/fetchPart";

// Parts that a shelf has no need of until something is saved or read.

/** Loads what saves a kit as files. */
export const loadSavePack = () => fetchPart(() => import("./savePack"));

/** Loads what puts files that were read on the shelf. */
export const loadTakeIn = () => fetchPart(() => import("../storage/takeIn"));
