import { useMemo, useState } from "react";
import { OTHER_RATES, type SheetOptions } from "#handover";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { ChoiceWord } from "../ui/ChoiceWord";

/** Returns the options of the timing sheet; stored with the kit. */
export function useSheetOptions(): SheetOptions {
  const options = useDocument(state => state.settings.sheet);
  const variants = useDocument(state => state.variants);
  return useMemo(() => {
    const since = variants.find(({ id }) => id === options?.since);
    return {
      ...(since ? { since: { name: since.name, kit: since.kit } } : {}),
      ...(options?.rates ? { rates: options.rates } : {}),
    };
  }, [options, variants]);
}

/** Parses typed rates, "30, 120"; undefined if one is invalid. */
function parseRates(typed: string): number[] | undefined {
  const rates = typed
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  return rates.every(rate => rate >= 1 && rate <= 1000) ? [...new Set(rates)] : undefined;
}

/** The options of the sheet: further rates for its lengths, and a variant to list changes since. */
export function SheetOptionsLine() {
  const workbench = useWorkbench();
  const options = useDocument(state => state.settings.sheet);
  const variants = useDocument(state => state.variants);
  const [isWrong, setWrong] = useState(false);
  const rates = (options?.rates ?? OTHER_RATES).join(", ");
  const set = (change: Partial<NonNullable<typeof options>>) =>
    workbench.updateKitSettings(settings => ({ ...settings, sheet: { ...settings.sheet, ...change } }));
  const setRates = (typed: string) => {
    const read = parseRates(typed);
    setWrong(read === undefined);
    if (read && read.join(", ") !== rates) set({ rates: read });
  };
  const isThere = variants.some(({ id }) => id === options?.since);
  return (
    <p className="mb-2 flex flex-wrap items-baseline gap-x-2 text-sm text-soft">
      <label>
        Lengths also at{" "}
        <input
          key={rates}
          defaultValue={rates}
          aria-invalid={isWrong}
          className="w-32 rounded border border-edge bg-leaf px-2 py-0.5 font-mono text-ink"
          onBlur={event => setRates(event.target.value)}
          onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
        />{" "}
        frames a second
      </label>
      {isWrong && (
        <span role="alert" className="text-foxglove">
          Write rates from 1 to 1000, with commas between.
        </span>
      )}
      {variants.length > 0 && (
        <span>
          and what changed since{" "}
          <ChoiceWord
            label="what changed since"
            value={isThere ? options!.since! : ""}
            choices={[
              { value: "", label: "no variant" },
              ...variants.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChoose={since => set({ since })}
          />
        </span>
      )}
    </p>
  );
}
