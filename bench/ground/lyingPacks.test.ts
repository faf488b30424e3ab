import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { createChance } from "../scenes";
import { lyingPack, readLying } from "./lyingPacks";

const FOLDER = "demo/belfry-runner";
const MEGABYTE = 1024 * 1024;

test("no pack with wrong headers throws, unpacks to more than it may, or is refused without a reason", () => {
  const files = readdirSync(FOLDER).map(name => [name, readFileSync(`${FOLDER}/${name}`, "utf8")] as const);
  const became = new Set<string>();
  for (let seed = 0; seed < 300; seed++) {
    const finding = readLying(lyingPack(createChance(seed), files));
    expect(finding.unpackedBytes, String(seed)).toBeLessThan(64 * MEGABYTE);
    for (const kind of finding.became) became.add(kind);
  }
  expect([...became].sort()).toEqual(["checks", "kit", "passed", "refused", "take"]);
});
