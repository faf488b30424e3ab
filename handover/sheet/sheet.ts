import {
  compile,
  describeCheck,
  describeRule,
  describeSwitch,
  formatBinding,
  formatVerdict,
  gateName,
  appliesTo,
  listPatternSights,
  nameOf,
  parseFrames,
  type Kit,
  ownValue,
} from "#core";
import { compileTakeJudge } from "#stage";
import type { ExportFormat, Handover } from "../kind";
import { LISTS, sentenceOf, TITLES } from "./sentences";
import { formatChangesSince } from "./since";
import { table } from "./table";
import { BLOW_WORDS, BLOWS, formatRanges } from "#stage";
import { listFollows } from "../numbers/cancels";
import { listFigures, type Figure } from "../numbers/listFigures";
import { slugOf, textFile } from "../outFile";
import { drawBars } from "./bars";
import { escapeHtml } from "./escapeHtml";
import { PAGE_STYLE, SHEET_STYLE } from "./style";

/** The default rates in addition to the kit's own, in Hz. */
export const OTHER_RATES: readonly number[] = [30, 60, 120];

function rules(kit: Kit, figures: readonly Figure[]): string {
  const all = LISTS.flatMap(list => {
    const items = (kit[list] ?? []).map((rule, index) => {
      const own = figures.filter(figure => figure.list === list && figure.id === rule.id);
      const isOff = "off" in rule && rule.off === true;
      return `<div class="rule${isOff ? " off" : ""}"><p>${sentenceOf(kit, describeRule(kit, list, index))}.</p>${drawBars(own, kit.rate)}</div>`;
    });
    return items.length > 0 ? [`<h2>${TITLES[list]}</h2>`, ...items] : [];
  });
  const switches = (kit.switches ?? []).map(
    item => `<div class="rule"><p>${sentenceOf(kit, describeSwitch(item, kit))}.</p></div>`,
  );
  return [...all, ...(switches.length > 0 ? ["<h2>Switches of modes</h2>", ...switches] : [])].join("\n");
}

function numbers(kit: Kit, figures: readonly Figure[], rates: readonly number[]): string {
  const others = rates.filter(rate => rate !== kit.rate);
  const head = ["rule", "number", "written", `at ${kit.rate}`, "ms", ...others.map(rate => `at ${rate}`)];
  const rows = figures.map(({ rule, label, written, frames, ms, rounding }) => [
    escapeHtml(rule),
    escapeHtml(label),
    escapeHtml(written),
    frames === null ? "" : `${frames}f`,
    ms === null ? "" : String(ms),
    ...others.map(rate =>
      frames === null ? "" : `${parseFrames(written, rate, rounding === "at most" ? "atMost" : "atLeast")}f`,
    ),
  ]);
  return `<h2>Numbers</h2>${table(head, rows, new Set([2, 3, 4, ...others.map((_, k) => 5 + k)]))}`;
}

/** The moves that may follow others, the same stretch at several outcomes in one row. */
function cancels(kit: Kit): string {
  const rows = new Map<string, { readonly cells: readonly string[]; readonly on: string[] }>();
  for (const { move, then, moveName, thenName, on, from, to, of } of listFollows(kit)) {
    const key = JSON.stringify([move, then, from, to]);
    const cells = [moveName || move, thenName || then, formatRanges([{ from, to }]), `${of}f`];
    const row = rows.get(key) ?? { cells, on: [] };
    rows.set(key, row);
    if (on) row.on.push(BLOW_WORDS[on]);
  }
  const all = [...rows.values()].map(({ cells, on }) => {
    const outcomes = on.length === 0 || on.length === BLOWS.length ? "always" : on.join(", ");
    const [move, then, frames, whole] = cells.map(escapeHtml);
    return [move!, then!, outcomes, frames!, whole!];
  });
  const head = ["move", "may be followed by", "when", "on its frames", "of"];
  return all.length > 0 ? `<h2>Cancels</h2>${table(head, all, new Set([3, 4]))}` : "";
}

function modes(kit: Kit): string {
  const program = compile(kit);
  if (!program.ok || (kit.modes ?? []).length === 0) return "";
  const { value } = program;
  const rows = kit.controls.map(({ name, id }, c) => [
    escapeHtml(name || id),
    ...kit.modes!.map((_, mode) => {
      const sees = listPatternSights(value, c, mode).filter(({ verdict }) => verdict === "hears");
      if (sees.length === 0) return '<span class="soft">nothing</span>';
      return escapeHtml(
        sees.map(({ pattern }) => nameOf(kit, "patterns", value.patterns[pattern]!.id)).join(", "),
      );
    }),
  ]);
  return `<h2>Rules that use a control, by mode</h2>${table(["control", ...kit.modes!.map(({ name, id }) => escapeHtml(name || id))], rows)}`;
}

function layouts({ kit, layouts: kept }: Handover): string {
  const words = (bindings: readonly (readonly string[])[] | undefined) =>
    escapeHtml((bindings ?? []).map(codes => formatBinding(codes)).join(", ")) ||
    '<span class="soft">–</span>';
  const rows = kit.controls.map(({ id, name, bindings }) => [
    escapeHtml(name || id),
    words(bindings),
    ...kept.map(layout => words(ownValue(layout.bindings, id) ?? bindings)),
  ]);
  return `<h2>Controls and keys</h2><p class="soft">Keys are named by their places on a US keyboard.</p>${table(["control", "keys and buttons", ...kept.map(({ name }) => escapeHtml(name))], rows)}`;
}

function checks({ kit, takes, checks: list }: Handover): string {
  if (list.length === 0) return "";
  const judge = compileTakeJudge(kit, list);
  const found = judge.ok ? takes.flatMap(take => judge.value(take).map(verdict => ({ take, verdict }))) : [];
  const takeName = (id: string) => takes.find(take => take.id === id)?.name || id;
  const rows = list.map((check, c) => {
    const own = found.filter(({ verdict }) => verdict.check === c);
    const failing = own.filter(({ verdict }) => !verdict.ok);
    const asked = check.on === "*" ? takes.filter(take => appliesTo(check, take.id)).length : check.on.length;
    const state = check.off
      ? "off"
      : !judge.ok
        ? "cannot be judged"
        : own.length === 0
          ? "its takes are not here"
          : failing.length === 0
            ? `holds in ${new Set(own.map(({ take }) => take)).size} of ${asked}`
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
      ...(toggles ? ["holds are one press, and another to end it"] : []),
      ...(mashes ? ["mashing is holding"] : []),
    ].join("; ") || "the keys of a layout",
  ]);
  return rows.length > 0 ? `<h2>Assists</h2>${table(["assist", "what it changes"], rows)}` : "";
}

/** Formats the body of the sheet, for a view that shows it as printed. All text is escaped. */
export function formatSheetBody(handover: Handover): string {
  const { kit, takes, sheet } = handover;
  const figures = listFigures(kit);
  return `<article class="sheet">
<h1>${escapeHtml(kit.name || kit.id)}</h1>
<p class="soft">${kit.rate} frames a second; a frame is ${Math.round(1e6 / kit.rate) / 1000} ms. Compared with ${takes.length} recorded ${takes.length === 1 ? "take" : "takes"}. In the drawings a filled bar is a minimum time, an outlined one is the time allowed.</p>
${sheet?.since ? formatChangesSince(kit, sheet.since) : ""}
${rules(kit, figures)}
${numbers(kit, figures, sheet?.rates ?? OTHER_RATES)}
${cancels(kit)}
${modes(kit)}
${layouts(handover)}
${checks(handover)}
${assists(kit)}
</article>`;
}

/**
 * Formats the sheet as one standalone HTML file without scripts or external resources. `faces` are CSS rules
 * with embedded fonts.
 */
export function formatSheet(handover: Handover, faces = ""): string {
  const { kit } = handover;
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escapeHtml(kit.name || kit.id)}: timing sheet</title>
<style>${faces}${PAGE_STYLE}
${SHEET_STYLE}</style>
</head>
<body>
${formatSheetBody(handover)}
</body>
</html>
`;
}

/** Exports the timing sheet, for people. */
export const sheetFormat: ExportFormat = {
  id: "sheet",
  word: "Timing sheet",
  hint: "Every rule as its sentence with its lengths to scale, numbers, modes, keys, checks and whether they hold: one page for people, to print.",
  uses: ["runs", "options", "faces"],
  commands: [{ as: "sheet" }],
  packed: { folder: "sheet", line: "the timing sheet for people" },
  files: (handover, { faces }) => [
    textFile(`${slugOf(handover.kit.name) || "kit"}.sheet.html`, formatSheet(handover, faces), "text/html"),
  ],
};
