/** Loads the list of what was read in; it is shown only on request. */
export const loadTakenSheet = () => import("./TakenSheet");
