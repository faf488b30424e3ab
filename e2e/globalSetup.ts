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
    browsers.map(({ server, sessionId, home, downloads, devTools }) => ({
      ...{ server, sessionId, home, downloads, devTools },
    })),
  );
  return async () => {
    await Promise.all(browsers.map(({ close }) => close()));
    app.stop();
  };
}
