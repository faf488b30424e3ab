import { Link, useSearchParams } from "react-router";
import { describeMove, describePattern, formatSentence, type Kit } from "#core";

/** A rule of the kit as the list names it. */
export interface RuleItem {
  readonly key: string;
  readonly kind: "pattern" | "move";
  readonly index: number;
  readonly group: string;
  readonly name: string;
  readonly summary: string;
}

function nameOf(kit: Kit) {
  return (kind: "control" | "gate" | "pattern", id: string) => {
    const list = kind === "control" ? kit.controls : kind === "gate" ? (kit.gates ?? []) : kit.patterns;
    return list.find(item => item.id === id)?.name ?? id;
  };
}

function controlOf(kit: Kit, patternId: string): string {
  const pattern = kit.patterns.find(item => item.id === patternId);
  const id =
    pattern &&
    ("control" in pattern ? pattern.control : "controls" in pattern ? pattern.controls[0] : undefined);
  return kit.controls.find(control => control.id === id)?.name ?? "Several controls";
}

/** Every rule, grouped by the control it listens to, moves before the patterns they answer. */
export function listRules(kit: Kit): RuleItem[] {
  const moves = (kit.moves ?? []).map((move, index): RuleItem => {
    const parts = describeMove(move).slice(1);
    return {
      key: `move:${move.id}`,
      kind: "move",
      index,
      group: controlOf(kit, move.pattern),
      name: move.name,
      summary: formatSentence(parts, nameOf(kit)),
    };
  });
  const patterns = kit.patterns.map((pattern, index): RuleItem => {
    const parts = describePattern(pattern).slice(1);
    return {
      key: `pattern:${pattern.id}`,
      kind: "pattern",
      index,
      group: controlOf(kit, pattern.id),
      name: pattern.name,
      summary: formatSentence(parts, nameOf(kit)),
    };
  });
  const groups = [...kit.controls.map(control => control.name), "Several controls"];
  return [...moves, ...patterns].sort((a, b) => groups.indexOf(a.group) - groups.indexOf(b.group));
}

/** The rules at the left of Shape; the one open is marked. */
export function RuleList({
  rules,
  openKey,
  warned,
}: {
  rules: readonly RuleItem[];
  openKey: string | undefined;
  warned: ReadonlySet<string>;
}) {
  const [search] = useSearchParams();
  const groups = [...new Set(rules.map(rule => rule.group))];
  const linkTo = (key: string) => {
    const next = new URLSearchParams(search);
    next.set("rule", key);
    return `?${next.toString()}`;
  };
  return (
    <nav aria-label="Rules" className="flex flex-col gap-4">
      {groups.map(group => (
        <section key={group}>
          <h2 className="px-5 pb-1 text-sm text-soft">{group}</h2>
          <ul>
            {rules
              .filter(rule => rule.group === group)
              .map(rule => (
                <li key={rule.key}>
                  <Link
                    to={linkTo(rule.key)}
                    preventScrollReset
                    aria-current={rule.key === openKey}
                    className="block border-l-[3px] border-transparent px-5 py-1.5 text-sm leading-snug hover:bg-leaf aria-[current=true]:border-moss aria-[current=true]:bg-leaf"
                  >
                    <b>{rule.name}</b> <span className="text-soft">{rule.summary}</span>
                    {warned.has(rule.key) && <span className="text-foxglove"> · look</span>}
                  </Link>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}
