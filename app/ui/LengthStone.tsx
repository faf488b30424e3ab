import { otherUnit, readLength, stepLength } from "./lengthText";
import { Stone, type BeginStep } from "./Stone";

/** An editable length in a sentence, in frames or milliseconds, with the other unit beside it. */
export function LengthStone({
  label,
  value,
  rateHz,
  rounding,
  least,
  onChange,
  beginStep,
  isBare = false,
}: {
  label: string;
  value: string;
  rateHz: number;
  rounding: "atLeast" | "atMost";
  least: number;
  onChange: (value: string) => void;
  beginStep: BeginStep;
  /** Without the other unit beside it, as in a table; it is then the tooltip. */
  isBare?: boolean;
}) {
  return (
    <Stone
      label={label}
      value={value}
      {...(isBare ? {} : { beside: otherUnit(value, rateHz, rounding) })}
      look="border-moss bg-lichen text-on-lichen"
      rules={{
        read: typed => readLength(typed, value, rateHz, rounding, least),
        step: (from, by) => stepLength(from, by, rateHz, rounding, least),
        limit: () => `at least ${least}f here`,
      }}
      onChange={onChange}
      beginStep={beginStep}
    />
  );
}
