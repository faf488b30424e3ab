import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseTake, type Kit, type Take } from "#core";
import { parseRules } from "#stage";
import { createChance } from "../scenes";
import { crossDocuments } from "./crossover";
import { listCrafted } from "./crafted";
import { travel } from "./journey";
import { mutate } from "./mutate";

const DEMO = "demo";

interface Source {
  readonly name: string;
  readonly text: string;
  readonly companion: { readonly kit: Kit; readonly take: Take };
}

function readAll(folder: string): Source[] {
  const texts = readdirSync(folder).map(name => [name, readFileSync(join(folder, name), "utf8")] as const);
  const kit = parseRules(JSON.parse(texts.find(([name]) => name === "kit.json")![1]));
  const take = parseTake(
    JSON.parse(texts.find(([name]) => name !== "kit.json" && name !== "checks.json")![1]),
  );
  if (!kit.ok || !take.ok) throw new Error(`${folder} must read`);
  const companion = { kit: kit.value.kit, take: take.value };
  return texts.map(([name, text]) => ({ name: `${folder}/${name}`, text, companion }));
}

/** The result of one document, with processor time in ms, which a busy machine affects little. */
export interface Finding {
  readonly name: string;
  readonly bytes: number;
  readonly ms: number;
  readonly became: string;
  /** The error thrown; empty if there was none. */
  readonly thrown: string;
}

/** The most times one document is tried: other load makes a first time too long, a slow document all of them. */
const MAX_TRIES = 4;

function walkOnce(name: string, text: string, companion: Source["companion"]): Finding {
  const began = process.cpuUsage();
  let became = "thrown";
  let thrown = "";
  try {
    became = travel(text, companion).became;
  } catch (error) {
    thrown = error instanceof Error ? (error.stack ?? error.message) : String(error);
  }
  const { user } = process.cpuUsage(began);
  return { name, bytes: text.length, ms: user / 1000, became, thrown };
}

/** Returns the fastest of up to four tries; a document within its limit, times `slack`, is tried once. */
function walk(slack: number, ...document: Parameters<typeof walkOnce>): Finding {
  let finding = walkOnce(...document);
  for (let k = 1; k < MAX_TRIES && finding.ms > slack * limitOf(finding); k++) {
    const again = walkOnce(...document);
    if (again.ms < finding.ms) finding = again;
  }
  return finding;
}

/**
 * Runs the crafted documents up to a size, and a number of mutated and crossed ones drawn from a seed, through the whole
 * application. A document that takes longer than its limit, times `slack`, is tried again.
 */
export function* survey(
  seed: number,
  mutated: number,
  craftedBytes = Infinity,
  slack = 1,
): Generator<Finding> {
  const sources = readdirSync(DEMO, { withFileTypes: true })
    .filter(entry => entry.isDirectory())
    .flatMap(({ name }) => readAll(join(DEMO, name)));
  const first = sources[0]!.companion;
  for (const { name, text } of listCrafted())
    if (text.length <= craftedBytes) yield walk(slack, name, text, first);
  for (let n = 0; n < mutated; n++) {
    const chance = createChance(seed * 1_000_003 + n);
    const source = sources[Math.floor(chance() * sources.length)]!;
    const other = sources[Math.floor(chance() * sources.length)]!;
    const text = n % 2 === 0 ? mutate(chance, source.text) : crossDocuments(chance, source.text, other.text);
    yield walk(slack, `${source.name}, seed ${seed}, ${n}`, text, source.companion);
  }
}

/** Returns the time limit of one document by its size, in ms. */
export function limitOf({ bytes }: Pick<Finding, "bytes">): number {
  return bytes < 100 * 1024 ? 250 : 2000;
}
