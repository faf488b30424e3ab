import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: [
      "core/**/*.test.ts",
      "stage/**/*.test.ts",
      "handover/**/*.test.ts",
      "runtime/**/*.test.ts",
      "offline/**/*.test.ts",
      "link/**/*.test.ts",
      "game/**/*.test.ts",
      "app/**/*.test.ts",
      "cli/**/*.test.ts",
      "demo/**/*.test.ts",
      "docs/**/*.test.ts",
      "bench/**/*.test.ts",
      "lint/**/*.test.ts",
    ],
    environment: "node",
    // No module keeps state, so files can share imports, and each is loaded once.
    pool: "threads",
    // The tests of the browser have priority; when they end, both cores are free.
    maxWorkers: 2,
    isolate: false,
    // Far above what any test or hook takes: on a busy machine they take ten times as long.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    expect: { poll: { timeout: 60_000 } },
  },
});
