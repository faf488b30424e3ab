import type { TestProject } from "vitest/node";
import { openBrowser, startApp, type OpenBrowser } from "./browser";

declare module "vitest" {
  export interface ProvidedContext {
    address: string;
    browsers: readonly OpenBrowser[];
  }
}

/** Serves the application, and opens one browser for each worker: most test files share theirs. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const workers = Number(project.config.maxWorkers);
  const app = await startApp();
  const browsers = await Promise.all(Array.from({ length: workers }, () => openBrowser()));
  project.provide("address", app.address);
  project.provide(
    "browsers",
    // Plain data alone can be passed to the workers.
    browsers.map(({ driver: _driver, close: _close, ...data }) => data),
  );
  return async () => {
    await Promise.all(browsers.map(({ close }) => close()));
    app.stop();
  };
}
