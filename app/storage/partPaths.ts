import italics from "@fontsource-variable/fraunces/files/fraunces-latin-wght-italic.woff2?url";

/** The runtime's files beside the page, in display order. */
export const RUNTIME = [
  "moss-tap-runtime.mjs",
  "moss-tap-runtime.d.mts",
  "run-vectors.mjs",
  "example.mjs",
  "moss-tap-link.mjs",
  "moss-tap-link.d.mts",
  "frame-rules.md",
] as const;

/** The files that exports are made of besides the kit. */
export const RUNTIME_PATHS = RUNTIME.map(name => `/runtime/${name}`);
export const PLAYER_PATH = "/player/parts.json";

/** Everything that Hand over fetches when it opens. */
export const PART_PATHS: readonly string[] = [...RUNTIME_PATHS, PLAYER_PATH, italics];
