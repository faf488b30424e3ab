import { useState } from "react";

/** A word or a number in a sentence that is typed: settled by Enter or by leaving it; Escape takes it back. */
export function TextStone({
  label,
  value,
  isNumber = false,
  isStrong = false,
  onChange,
}: {
  label: string;
  value: string;
  isNumber?: boolean;
  isStrong?: boolean;
  onChange: (value: string) => void;
}) {
  const [draft, setDraft] = useState<string | undefined>();
  const settle = () => {
    if (draft === undefined) return;
    const typed = draft.trim().replace(isNumber ? "," : /$^/, ".");
    setDraft(undefined);
    const isFitting = typed !== "" && (!isNumber || Number.isFinite(Number(typed)));
    if (isFitting && typed !== value) onChange(typed);
  };
  return (
    <input
      aria-label={label}
      data-draft={draft === undefined ? undefined : ""}
      className={`rounded-md bg-transparent focus:bg-leaf ${isStrong ? "font-bold" : "border-b-2 border-fern px-1"} ${isNumber ? "bg-sand text-center font-mono font-semibold" : ""}`}
      style={{ fieldSizing: "content", minWidth: "2ch" }}
      size={Math.max(2, (draft ?? value).length)}
      inputMode={isNumber ? "decimal" : "text"}
      spellCheck={false}
      value={draft ?? value}
      onChange={event => setDraft(event.target.value)}
      onBlur={settle}
      onKeyDown={event => {
        if (event.key === "Enter") settle();
        if (event.key === "Escape") setDraft(undefined);
        if (isNumber && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
          event.preventDefault();
          setDraft(undefined);
          onChange(String(Math.round((Number(value) + (event.key === "ArrowUp" ? 1 : -1)) * 1000) / 1000));
        }
      }}
    />
  );
}
