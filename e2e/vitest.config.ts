import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["e2e/**/*.test.ts"],
    environment: "node",
    globalSetup: ["e2e/globalSetup.ts"],
    // A file keeps what it changes to itself, so files can share imports, and each is loaded once per worker.
    isolate: false,
    testTimeout: 300_000,
    hookTimeout: 180_000,
    expect: { poll: { timeout: 60_000, interval: 50 } },
    // Browser tests mostly wait: two files at a time keep two cores busy, a third one only slows the others.
    maxWorkers: 2,
  },
});
