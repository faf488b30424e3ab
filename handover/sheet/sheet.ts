import {
  compile,
  describeCheck,
  describeGate,
  describeMove,
  describePattern,
  describePrompt,
  describeSwitch,
  formatSentence,
  formatVerdict,
  gateName,
  isAskedOf,
  listHearers,
  nameOf,
  parseFrames,
  type Kit,
  type RefList,
  type SentencePart,
} from "#core";
import { compileTakeJudge } from "#stage";
import type { ExportFormat, Handover } from "../kind";
import { listFigures, type Figure } from "../numbers/listFigures";
import { slugOf, textFile } from "../outFile";
import { drawBars } from "./bars";
import { escapeHtml } from "./escapeHtml";
import { PAGE_STYLE, SHEET_STYLE } from "./style";

const LISTS = ["moves", "patterns", "gates", "prompts"] as const;
const TITLES = { moves: "Moves", patterns: "Patterns", gates: "Gates", prompts: "Prompts" } as const;
/** Rates the sheet tells lengths at besides the kit's own. */
const OTHER_RATES = [30, 60, 120] as const;

/** What the lists of a sentence call their things. */
const NAMED: Readonly<Partial<Record<RefList, "controls" | "patterns" | "moves" | "modes" | "prompts">>> = {
  control: "controls",
  pattern: "patterns",
  move: "moves",
  mode: "modes",
  prompt: "prompts",
};

function sentenceOf(kit: Kit, parts: readonly SentencePart[]): string {
  const isNamed = parts[0]?.kind === "name";
  const nameIn = (list: RefList, id: string) => {
    const named = NAMED[list];
    return named ? nameOf(kit, named, id) : list === "gate" ? gateName(kit, id) : id;
  };
  const [first, ...rest] = parts;
  if (!isNamed || !first || first.kind !== "name") return escapeHtml(formatSentence(parts, nameIn));
  return `<b>${escapeHtml(first.text)}</b>${escapeHtml(formatSentence(rest, nameIn))}`;
}

function partsOf(kit: Kit, list: (typeof LISTS)[number], index: number): readonly SentencePart[] {
  switch (list) {
    case "moves":
      return describeMove(kit.moves![index]!);
    case "patterns":
      return describePattern(kit.patterns[index]!, kit);
    case "gates":
      return describeGate(kit.gates![index]!);
    case "prompts":
      return describePrompt(kit.prompts![index]!, kit);
  }
}

function rules(kit: Kit, figures: readonly Figure[]): string {
  const all = LISTS.flatMap(list => {
    const items = (kit[list] ?? []).map((rule, index) => {
      const own = figures.filter(figure => figure.list === list && figure.id === rule.id);
      const isOff = "off" in rule && rule.off === true;
      return `<div class="rule${isOff ? " off" : ""}"><p>${sentenceOf(kit, partsOf(kit, list, index))}.</p>${drawBars(own, kit.rate)}</div>`;
    });
    return items.length > 0 ? [`<h2>${TITLES[list]}</h2>`, ...items] : [];
  });
  const switches = (kit.switches ?? []).map(
    item => `<div class="rule"><p>${sentenceOf(kit, describeSwitch(item, kit))}.</p></div>`,
  );
  return [...all, ...(switches.length > 0 ? ["<h2>Switches of modes</h2>", ...switches] : [])].join("\n");
}

function table(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  numbers: ReadonlySet<number> = new Set(),
): string {
  const look = (k: number) => (numbers.has(k) ? ' class="n"' : "");
  const line = (cells: readonly string[], tag: "th" | "td") =>
    `<tr>${cells.map((cell, k) => `<${tag}${look(k)}>${cell}</${tag}>`).join("")}</tr>`;
  return `<table><thead>${line(head, "th")}</thead><tbody>${rows.map(row => line(row, "td")).join("\n")}</tbody></table>`;
}

function numbers(kit: Kit, figures: readonly Figure[]): string {
  const others = OTHER_RATES.filter(rate => rate !== kit.rate);
  const head = ["rule", "field", "written", `at ${kit.rate}`, "ms", ...others.map(rate => `at ${rate}`)];
  const rows = figures.map(({ rule, field, written, frames, ms, rounding }) => [
    escapeHtml(rule),
    escapeHtml(field.replaceAll(".", " ")),
    escapeHtml(written),
    frames === null ? "" : `${frames}f`,
    ms === null ? "" : String(ms),
    ...others.map(rate =>
      frames === null ? "" : `${parseFrames(written, rate, rounding === "at most" ? "atMost" : "atLeast")}f`,
    ),
  ]);
  return `<h2>Numbers</h2>${table(head, rows, new Set([2, 3, 4, 5, 6, 7]))}`;
}

function modes(kit: Kit): string {
  const program = compile(kit);
  if (!program.ok || (kit.modes ?? []).length === 0) return "";
  const { value } = program;
  const rows = kit.controls.map(({ name, id }, c) => [
    escapeHtml(name || id),
    ...kit.modes!.map((_, mode) => {
      const hears = listHearers(value, c, mode).filter(({ verdict }) => verdict === "hears");
      if (hears.length === 0) return '<span class="soft">nothing</span>';
      return escapeHtml(
        hears.map(({ pattern }) => nameOf(kit, "patterns", value.patterns[pattern]!.id)).join(", "),
      );
    }),
  ]);
  return `<h2>What hears a control, by mode</h2>${table(["control", ...kit.modes!.map(({ name, id }) => escapeHtml(name || id))], rows)}`;
}

function layouts({ kit, layouts: kept }: Handover): string {
  const words = (bindings: readonly (readonly string[])[] | undefined) =>
    escapeHtml((bindings ?? []).map(codes => codes.join(" + ")).join(", ")) || '<span class="soft">–</span>';
  const rows = kit.controls.map(({ id, name, bindings }) => [
    escapeHtml(name || id),
    words(bindings),
    ...kept.map(layout =>
      Object.hasOwn(layout.bindings, id) ? words(layout.bindings[id]) : words(bindings),
    ),
  ]);
  return `<h2>Controls and keys</h2>${table(["control", "keys and buttons", ...kept.map(({ name }) => escapeHtml(name))], rows)}`;
}

function checks({ kit, takes, checks: list }: Handover): string {
  if (list.length === 0) return "";
  const judge = compileTakeJudge(kit, list);
  const found = judge.ok ? takes.flatMap(take => judge.value(take).map(verdict => ({ take, verdict }))) : [];
  const takeName = (id: string) => takes.find(take => take.id === id)?.name || id;
  const rows = list.map((check, c) => {
    const own = found.filter(({ verdict }) => verdict.check === c);
    const failing = own.filter(({ verdict }) => !verdict.ok);
    const asked = check.on === "*" ? takes.filter(take => isAskedOf(check, take.id)).length : check.on.length;
    const state = check.off
      ? "off"
      : !judge.ok
        ? "cannot be judged"
        : own.length === 0
          ? "its takes are not here"
          : failing.length === 0
            ? `holds in ${own.length} of ${asked}`
            : `<span class="bad">does not hold: ${escapeHtml(failing.map(({ take, verdict }) => `${take.name || take.id}: ${formatVerdict(verdict)}`).join("; "))}</span>`;
    const parts = describeCheck(check, { take: takeName, gate: id => gateName(kit, id) });
    return [escapeHtml(check.name || check.id), sentenceOf(kit, parts), state];
  });
  return `<h2>Checks</h2>${table(["check", "asks", "now"], rows)}`;
}

function assists(kit: Kit): string {
  const rows = (kit.assists ?? []).map(({ name, windows = 100, gaps = 100, toggles, mashes }) => [
    escapeHtml(name),
    [
      ...(windows === 100 ? [] : [`windows ${windows} % as long`]),
      ...(gaps === 100 ? [] : [`gaps between taps ${gaps} %`]),
      ...(toggles ? ["holds are one press, and one more to let go"] : []),
      ...(mashes ? ["mashing is holding"] : []),
    ].join("; ") || "the keys of a layout",
  ]);
  return rows.length > 0 ? `<h2>Assists</h2>${table(["assist", "what it changes"], rows)}` : "";
}

/** The sheet without its page: for a view that shows it as it prints. All text is escaped. */
export function formatSheetBody(handover: Handover): string {
  const { kit, takes } = handover;
  const figures = listFigures(kit);
  return `<article class="sheet">
<h1>${escapeHtml(kit.name || kit.id)}</h1>
<p class="soft">${kit.rate} frames a second; a frame is ${Math.round(1e6 / kit.rate) / 1000} ms. Held against ${takes.length} recorded ${takes.length === 1 ? "take" : "takes"}. In the drawings a full bar must be waited for, an open one is allowed.</p>
${rules(kit, figures)}
${numbers(kit, figures)}
${modes(kit)}
${layouts(handover)}
${checks(handover)}
${assists(kit)}
</article>`;
}

/** The sheet as one HTML file that stands alone: no script, nothing from anywhere. */
export function formatSheet(handover: Handover): string {
  const { kit } = handover;
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escapeHtml(kit.name || kit.id)}: timing sheet</title>
<style>${PAGE_STYLE}
${SHEET_STYLE}</style>
</head>
<body>
${formatSheetBody(handover)}
</body>
</html>
`;
}

/** The timing sheet, for people. */
export const sheetFormat: ExportFormat = {
  id: "sheet",
  word: "Timing sheet",
  runsTakes: true,
  hint: "Every rule as its sentence with its lengths to scale, numbers, modes, keys, checks and whether they hold: one page for people, to print.",
  files: handover => [
    textFile(`${slugOf(handover.kit.name) || "kit"}.sheet.html`, formatSheet(handover), "text/html"),
  ],
};
