import { BOUNDS } from "#core";
import { useState } from "react";

/** A longer text may be truncated with an ellipsis; its tooltip shows all of it. */
const LONG_LETTERS = 24;

/** An editable text in a sentence: confirmed by Enter or on blur; Escape cancels. */
export function TextStone({
  label,
  value,
  isStrong = false,
  onChange,
}: {
  label: string;
  value: string;
  isStrong?: boolean;
  onChange: (value: string) => void;
}) {
  const [draft, setDraft] = useState<string | undefined>();
  const commit = () => {
    if (draft === undefined) return;
    const typed = draft.trim();
    setDraft(undefined);
    if (typed !== "" && typed !== value) onChange(typed);
  };
  return (
    <input
      maxLength={BOUNDS.nameLetters}
      aria-label={label}
      data-draft={draft === undefined ? undefined : ""}
      className={`max-w-full rounded-md bg-transparent text-ellipsis focus:bg-leaf ${isStrong ? "font-bold" : "border-b-2 border-edge px-1"}`}
      style={{ fieldSizing: "content", minWidth: "2ch" }}
      title={value.length > LONG_LETTERS ? value : undefined}
      size={Math.max(2, (draft ?? value).length)}
      spellCheck={false}
      value={draft ?? value}
      onChange={event => setDraft(event.target.value)}
      onBlur={commit}
      onKeyDown={event => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape") setDraft(undefined);
      }}
    />
  );
}
