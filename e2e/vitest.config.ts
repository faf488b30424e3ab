import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["e2e/**/*.test.ts"],
    environment: "node",
    testTimeout: 90_000,
    hookTimeout: 60_000,
    // Much of a browser test is waiting: two files at a time keep two cores busy, a third only makes all of them wait.
    maxWorkers: 2,
  },
});
