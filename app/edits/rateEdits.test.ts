import { readdirSync } from "node:fs";
import { expect, test } from "vitest";
import { readAt } from "#core";
import { parseRules } from "#stage";
import { readKitAndTakes } from "../tests/evaluated";
import { changeRate, listAllLengths, readRateChange } from "./rateEdits";

const FOLDERS = readdirSync("demo", { withFileTypes: true }).flatMap(entry =>
  entry.isDirectory() ? [entry.name] : [],
);

test.each(FOLDERS)("every length written in %s is found, and nothing else", folder => {
  const { kit } = readKitAndTakes(`demo/${folder}`);
  const found = listAllLengths(kit);
  const written = JSON.stringify(kit).match(/"\d+(?:f|(?:\.\d+)?ms)"/g) ?? [];
  expect(found.map(({ written: text }) => `"${text}"`).sort()).toEqual([...written].sort());
  for (const { path, written: text } of found) expect(readAt(kit, path)).toBe(text);
});

test.each(FOLDERS)(
  "at twice the rate %s keeps its frames or its time, as is asked, and comes back the same",
  folder => {
    const { kit } = readKitAndTakes(`demo/${folder}`);
    const frames = changeRate(kit, kit.rate * 2, "frames");
    expect(frames).toEqual({ ...kit, rate: kit.rate * 2 });
    const time = changeRate(kit, kit.rate * 2, "time");
    expect(parseRules(JSON.parse(JSON.stringify(time))).ok).toBe(true);
    for (const { path, written } of listAllLengths(kit))
      expect(readAt(time, path)).toBe(written.endsWith("f") ? `${parseInt(written, 10) * 2}f` : written);
    expect(changeRate(time, kit.rate, "time")).toEqual(kit);
  },
);

test("a length of a frame never becomes none; what changes is counted, with an example", () => {
  const { kit } = readKitAndTakes("demo/belfry-runner");
  for (const { path, written } of listAllLengths(kit))
    if (parseInt(written, 10) > 0)
      expect(parseInt(String(readAt(changeRate(kit, 1, "time"), path)), 10)).toBeGreaterThan(0);
  const change = readRateChange(kit, 120);
  expect(change.inFrames + change.inMs).toBeGreaterThan(10);
  expect(change.example!.msBefore).toBe(2 * change.example!.msAfter);
});
