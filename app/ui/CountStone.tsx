import { useState } from "react";

/** A whole number in a sentence: typed, or stepped with the arrows. */
export function CountStone({
  label,
  value,
  least,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  onChange: (value: number) => void;
}) {
  const [draft, setDraft] = useState<string | undefined>();
  const settle = (typed: string) => {
    setDraft(undefined);
    const read = Number(typed);
    if (Number.isInteger(read) && read >= least && read !== value) onChange(read);
  };
  return (
    <input
      aria-label={label}
      data-draft={draft === undefined ? undefined : ""}
      className="w-[calc(2ch+14px)] rounded-md border-b-2 border-moss bg-sand px-1.5 py-0.5 text-center font-mono font-semibold"
      inputMode="numeric"
      value={draft ?? String(value)}
      onChange={event => setDraft(event.target.value)}
      onBlur={() => draft !== undefined && settle(draft)}
      onKeyDown={event => {
        if (event.key === "Enter") settle(draft ?? String(value));
        if (event.key === "ArrowUp" || event.key === "ArrowDown") {
          event.preventDefault();
          const next = value + (event.key === "ArrowUp" ? 1 : -1);
          if (next >= least) onChange(next);
        }
      }}
    />
  );
}
