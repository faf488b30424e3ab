import { openBrowser, startApp } from "./browser";
import { measureFigures } from "./figuresAll";

// Measures the figures of the tape in headless Chromium and prints them. Run by `npm run figures` after a build.
const app = await startApp();
const { driver, downloads, close } = await openBrowser();
try {
  await measureFigures(driver, app.address, downloads, {
    takes: 200,
    frames: 216_000,
    longFrames: 2_160_000,
    steps: 60,
    watchMs: 6000,
  });
} finally {
  await close();
  app.stop();
}
