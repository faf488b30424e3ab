import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["e2e/**/*.test.ts"],
    environment: "node",
    testTimeout: 90_000,
    hookTimeout: 60_000,
    // Browser tests mostly wait: two files at a time keep two cores busy, a third one only slows the others.
    maxWorkers: 2,
  },
});
