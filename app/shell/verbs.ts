/** The six views of a kit, in working order: the label, the address, and the route file. */
export const VERBS = [
  { path: "wire", word: "Wire", route: "routes/kit.wire.tsx" },
  { path: "shape", word: "Shape", route: "routes/kit.shape.tsx" },
  { path: "play", word: "Play", route: "routes/kit.play.tsx" },
  { path: "tune", word: "Tune", route: "routes/kit.tune.tsx" },
  { path: "prove", word: "Prove", route: "routes/kit.prove.tsx" },
  { path: "hand-over", word: "Hand over", route: "routes/kit.handOver.tsx" },
] as const;
