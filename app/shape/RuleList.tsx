import { memo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { RuleItem } from "./model/rules";

const MAX_LETTERS = 96;

function shorten(summary: string): string {
  return summary.length > MAX_LETTERS ? `${summary.slice(0, MAX_LETTERS - 2).trimEnd()} …` : summary;
}

/** One rule of the list, re-rendered only when its text changes, so that a number can be dragged smoothly. */
const RuleLine = memo(function RuleLine({
  to,
  name,
  summary,
  isOpen,
  isOff,
  isWarned,
}: {
  to: string;
  name: string;
  summary: string;
  isOpen: boolean;
  isOff: boolean;
  isWarned: boolean;
}) {
  return (
    <li>
      <Link
        to={to}
        preventScrollReset
        aria-current={isOpen}
        className={`block border-l-[3px] border-transparent px-5 py-1 text-sm leading-snug hover:bg-leaf aria-[current=true]:border-moss aria-[current=true]:bg-leaf ${isOff ? "line-through decoration-soft" : ""}`}
      >
        {name && <b>{name}</b>} <span className="text-soft">{summary}</span>
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
  const warnedKeys = warned.split("|");
  const word = wanted.trim().toLowerCase();
  const found = rules.filter(rule =>
    `${rule.name} ${rule.summary} ${rule.group}`.toLowerCase().includes(word),
  );
  const groups = [...new Set(found.map(rule => rule.group))];
  const linkTo = (key: string) => {
    const next = new URLSearchParams(search);
    next.set("rule", key);
    return `?${next.toString()}`;
  };
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
      {groups.map(group => (
        <section key={group}>
          <h2 className="px-5 pb-1 text-sm text-soft">{group}</h2>
          <ul>
            {found
              .filter(rule => rule.group === group)
              .map(rule => (
                <RuleLine
                  key={rule.key}
                  to={linkTo(rule.key)}
                  name={rule.name}
                  summary={shorten(rule.summary)}
                  isOpen={rule.key === openKey}
                  isOff={rule.isOff}
                  isWarned={warnedKeys.includes(rule.key)}
                />
              ))}
          </ul>
        </section>
      ))}
    </nav>
  );
});
