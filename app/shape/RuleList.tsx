import { memo, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { groupBy } from "#core";
import { useGradual } from "../ui/useGradual";
import type { RuleItem } from "./model/rules";

const MAX_LETTERS = 96;

function shorten(summary: string): string {
  return summary.length > MAX_LETTERS ? `${summary.slice(0, MAX_LETTERS - 2).trimEnd()} …` : summary;
}

/** Returns the address of a rule's page. */
function linkTo(search: string, key: string): string {
  const next = new URLSearchParams(search);
  next.set("rule", key);
  return `?${next.toString()}`;
}

/** Returns the rules that have a word in their names, sentences or groups. */
function findRules(rules: readonly RuleItem[], word: string): readonly RuleItem[] {
  if (word === "") return rules;
  return rules.filter(rule => `${rule.name} ${rule.summary} ${rule.group}`.toLowerCase().includes(word));
}

/** One rule of the list, re-rendered only when its text changes, so that a number can be dragged smoothly. */
const RuleLine = memo(function RuleLine({
  search,
  ruleKey,
  name,
  summary,
  isOpen,
  isOff,
  isWarned,
}: {
  /** The search of the address, of which the link changes the rule. */
  search: string;
  ruleKey: string;
  name: string;
  summary: string;
  isOpen: boolean;
  isOff: boolean;
  isWarned: boolean;
}) {
  return (
    <li>
      <Link
        to={linkTo(search, ruleKey)}
        preventScrollReset
        aria-current={isOpen}
        className={`block border-l-[3px] border-transparent px-5 py-1 text-sm leading-snug hover:bg-leaf aria-[current=true]:border-moss aria-[current=true]:bg-leaf ${isOff ? "line-through decoration-soft" : ""}`}
      >
        {name && <b>{name}</b>} <span className="text-soft">{shorten(summary)}</span>
        {isOff && <span className="text-foxglove"> · off</span>}
        {isWarned && <span className="text-foxglove"> · warning</span>}
      </Link>
    </li>
  );
});

/**
 * The list of rules at the left of Shape: the open one is marked, those with warnings show it; with a search
 * field.
 */
export const RuleList = memo(function RuleList({
  rules,
  openKey,
  warned,
}: {
  rules: readonly RuleItem[];
  openKey: string | undefined;
  /** Keys of rules with warnings, joined by "|". */
  warned: string;
}) {
  const [search] = useSearchParams();
  const [wanted, setWanted] = useState("");
  const warnedKeys = new Set(warned.split("|"));
  const word = wanted.trim().toLowerCase();
  const found = useMemo(() => findRules(rules, word), [rules, word]);
  const shown = found.slice(0, useGradual(found.length));
  /** In the order of the first rule of each. */
  const groups = groupBy(shown, rule => rule.group);
  const searched = search.toString();
  return (
    <nav aria-label="Rules" className="flex flex-col gap-3">
      {rules.length > 5 && (
        <div className="px-5">
          <input
            type="search"
            aria-label="Find a rule"
            placeholder="Find a rule"
            className="w-full rounded-full border border-edge bg-leaf px-3 py-1 text-sm placeholder:text-soft"
            value={wanted}
            onChange={event => setWanted(event.target.value)}
          />
        </div>
      )}
      {found.length === 0 && word !== "" && (
        <p className="px-5 text-sm text-soft">No rule has “{wanted.trim()}” in it.</p>
      )}
      {[...groups].map(([group, own]) => (
        <section key={group}>
          <h2 className="px-5 pb-1 text-sm text-soft">{group}</h2>
          <ul>
            {own.map(rule => (
              <RuleLine
                key={rule.key}
                search={searched}
                ruleKey={rule.key}
                name={rule.name}
                summary={rule.summary}
                isOpen={rule.key === openKey}
                isOff={rule.isOff}
                isWarned={warnedKeys.has(rule.key)}
              />
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
});
