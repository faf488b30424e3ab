import { memo, useState } from "react";
import { countWords } from "#core";
import { Button } from "../ui/Button";
import { Flap } from "../ui/Flap";
import type { RuleItem } from "./model/rules";
import { useRuleClips } from "./useRuleClips";

const WORD = "text-sm text-moss underline-offset-4 hover:underline";

/** Copying several rules, chosen from a list, and pasting rules of any kit. */
export const RuleClips = memo(function RuleClips({ rules }: { rules: readonly RuleItem[] }) {
  const { copy, paste } = useRuleClips();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const copied = rules.filter(rule => rule.list !== "switches");
  const picked = copied.filter(({ key }) => chosen.has(key));
  const toggle = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  return (
    <p className="flex gap-4 px-5">
      {copied.length > 0 && (
        <Flap
          word="Copy rules …"
          wordLook={WORD}
          anchor={{ to: "right start", gap: 12 }}
          panelLook="max-h-[70vh] w-80 p-3"
        >
          {close => (
            <>
              <ul aria-label="Rules to copy">
                {copied.map(({ key, name, summary }) => (
                  <li key={key}>
                    <label className="flex items-baseline gap-2 py-0.5">
                      <input type="checkbox" checked={chosen.has(key)} onChange={() => toggle(key)} />
                      <span className="min-w-0 truncate">
                        <b>{name}</b> <span className="text-soft">{summary}</span>
                      </span>
                    </label>
                  </li>
                ))}
              </ul>
              <div className="sticky -bottom-3 -mx-3 mt-2 bg-leaf px-3 py-2">
                <Button
                  look="strong"
                  disabled={picked.length === 0}
                  onClick={() => {
                    copy(picked);
                    close();
                  }}
                >
                  {picked.length === 0 ? "Choose rules to copy" : `Copy ${countWords(picked.length, "rule")}`}
                </Button>
              </div>
            </>
          )}
        </Flap>
      )}
      <button type="button" className={WORD} title="Ctrl+V" onClick={paste}>
        Paste rules
      </button>
    </p>
  );
});
