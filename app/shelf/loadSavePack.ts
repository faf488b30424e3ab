/** Loads what saves a kit as files; a shelf from which nothing is saved has no need of it. */
export const loadSavePack = () => import("./savePack");
