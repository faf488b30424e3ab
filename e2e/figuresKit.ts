import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { By, type WebDriver } from "selenium-webdriver";

/** The size of what is measured; a short form proves that every figure can still be measured. */
export interface FigureSize {
  /** The takes of a playtest. */
  readonly takes: number;
  /** The frames of a long take, above 20,000; and of the longest, whose files are made on request from 80,000 on. */
  readonly frames: number;
  readonly longFrames: number;
  /** How often a number is stepped. */
  readonly steps: number;
  /** The time for which pictures are counted. */
  readonly watchMs: number;
}

/** Records, in the page, every animation frame and long task from now on. */
export const WATCH = `
  window.watched = { frames: [], long: [] };
  new PerformanceObserver(list => list.getEntries().forEach(entry => window.watched.long.push(entry.duration))).observe({ entryTypes: ["longtask"] });
  (function tick(now) { window.watched.frames.push(now); requestAnimationFrame(tick); })(performance.now());
`;

export function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;
}

export function percentile(values: number[], share: number): number {
  return (
    [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN
  );
}

export function printFigure(what: string, value: string, goal: string): void {
  console.log(`${what.padEnd(64)} ${value.padStart(22)}   ${goal}`);
}

export async function readIn(
  driver: WebDriver,
  folder: string,
  documents: Record<string, unknown>,
): Promise<void> {
  const files = Object.entries(documents).map(([name, document]) => {
    const file = join(folder, `${name}.json`);
    writeFileSync(file, JSON.stringify(document));
    return file;
  });
  await (await driver.findElement(By.css("[data-testid=file-picker]"))).sendKeys(files.join("\n"));
}
