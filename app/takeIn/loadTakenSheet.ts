import { fetchPart } from "../ui/fetchPart";

/** Loads the list of what was read in; it is shown only on request. */
export const loadTakenSheet = () => fetchPart(() => import("./TakenSheet"));
