import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["e2e/**/*.test.ts"],
    environment: "node",
    testTimeout: 90_000,
    hookTimeout: 60_000,
    maxWorkers: 2,
  },
});
