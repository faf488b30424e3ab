import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: [
      "core/**/*.test.ts",
      "stage/**/*.test.ts",
      "handover/**/*.test.ts",
      "runtime/**/*.test.ts",
      "app/**/*.test.ts",
      "cli/**/*.test.ts",
      "demo/**/*.test.ts",
      "docs/**/*.test.ts",
      "bench/**/*.test.ts",
    ],
    environment: "node",
    // No module keeps state of its own, so files can share what they import: it is read once for all of them.
    pool: "threads",
    isolate: false,
    testTimeout: 60_000,
  },
});
