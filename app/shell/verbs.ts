/** The six views of a kit, in working order: the label, the address, the route file, and what it is for. */
export const VERBS = [
  {
    path: "wire",
    word: "Wire",
    route: "routes/kit.wire.tsx",
    line: "Controls, and the keys, buttons and sticks that play them.",
  },
  {
    path: "shape",
    word: "Shape",
    route: "routes/kit.shape.tsx",
    line: "Rules: how presses become patterns, moves and prompts.",
  },
  {
    path: "play",
    word: "Play",
    route: "routes/kit.play.tsx",
    line: "The rules on a small stage, and takes recorded there.",
  },
  {
    path: "tune",
    word: "Tune",
    route: "routes/kit.tune.tsx",
    line: "Numbers chosen by what takes and players show.",
  },
  {
    path: "prove",
    word: "Prove",
    route: "routes/kit.prove.tsx",
    line: "Checks that must hold in every take.",
  },
  {
    path: "hand-over",
    word: "Hand over",
    route: "routes/kit.handOver.tsx",
    line: "Files for the people who build the game.",
  },
] as const;
