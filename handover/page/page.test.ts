import { readFileSync } from "node:fs";
import { beforeAll, expect, test } from "vitest";
import type { Kit } from "#core";
import { parseRules } from "#stage";
import { bundlePlayer } from "../../runtime/playerParts.mjs";
import { facesOf, makePage, type PlayerParts } from "./page";

const DEMOS = ["belfry-runner", "clapper-duel", "rope-catch"];
const LIMIT_BYTES = 400 * 1024;
let parts: PlayerParts;
beforeAll(async () => {
  parts = await bundlePlayer();
});

const kitOf = (name: string): Kit => {
  const rules = parseRules(JSON.parse(readFileSync(`demo/${name}/kit.json`, "utf8")));
  if (!rules.ok) throw new Error("the demo must read");
  return rules.value.kit;
};
const textOf = (kit: Kit) => new TextDecoder().decode(makePage({ kit, layouts: [] }, parts)[0]!.bytes);

test.each(DEMOS)("the page of %s is one file under 400 KB that names no other place", name => {
  const text = textOf(kitOf(name));
  expect(text.length).toBeLessThan(LIMIT_BYTES);
  expect(text).toContain("default-src 'none'");
  // After the page come the notices of its packages and fonts, which name addresses.
  const page = text.slice(0, text.lastIndexOf("<!--"));
  const asked = page.matchAll(
    /(?:src|href)\s*=\s*["'][^"']*["']|url\((?!["']?data:)[^)]{1,60}\)|https?:\/\/[^"'`\s)]{1,60}/g,
  );
  // Matches addresses that are only names: namespaces of SVG and of schemas.
  const isName = (found: string) => /^https?:\/\/(www\.w3\.org|json-schema\.org)\//.test(found);
  expect([...asked].map(([found]) => found).filter(found => !isName(found))).toEqual([]);
  expect(/\bfetch\(|XMLHttpRequest|WebSocket|sendBeacon|\bimport\(/.exec(text)?.[0]).toBeUndefined();
});

test("the page carries the notices of its packages and fonts, and every copy of the fonts theirs", () => {
  const notices = textOf(kitOf("rope-catch")).split("<!--").at(-1)!;
  for (const name of ["valibot", "fraunces", "atkinson-hyperlegible-next", "SIL Open Font License", "MIT"])
    expect(notices).toContain(name);
  expect(notices.slice(0, notices.lastIndexOf("-->"))).not.toMatch(/--/);
  expect(facesOf(parts)).not.toMatch(/[<&]/);
  expect(facesOf(parts)).toMatch(/^\/\*[^]*SIL Open Font License[^]*\*\/\n@font-face/);
});

test("any name of a kit is escaped and restored", () => {
  const kit = { ...kitOf("rope-catch"), name: `</script><script>alert("&1")</script><!--` };
  const text = textOf(kit);
  const [, played] = /<script type="application\/json" id="played">(.*?)<\/script>/s.exec(text)!;
  expect((JSON.parse(played!) as { kit: Kit }).kit).toEqual(kit);
  expect(text).not.toContain("<script>alert");
  expect(text.match(/<script/g)).toHaveLength(2);
});

test("rules with faults make no page", () => {
  const kit = kitOf("rope-catch");
  expect(makePage({ kit: { ...kit, patterns: [] }, layouts: [] }, parts)).toEqual([]);
});
