import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: [
      "core/**/*.test.ts",
      "stage/**/*.test.ts",
      "handover/**/*.test.ts",
      "app/**/*.test.ts",
      "cli/**/*.test.ts",
      "demo/**/*.test.ts",
      "docs/**/*.test.ts",
    ],
    environment: "node",
    testTimeout: 60_000,
  },
});
