import { formatBounds, readNumber, stepNumber, type NumberBounds } from "./numberText";
import { Stone, type BeginStep } from "./Stone";

/** An editable number in a sentence that is not a length: a count, a speed, a share. */
export function NumberStone({
  label,
  value,
  onChange,
  beginStep,
  ...bounds
}: NumberBounds & {
  label: string;
  value: number;
  onChange: (value: number) => void;
  beginStep: BeginStep;
}) {
  return (
    <Stone
      label={label}
      value={String(value)}
      look="border-edge bg-sand"
      rules={{
        read: typed => readNumber(typed, bounds),
        step: (from, by) => stepNumber(from, by, bounds),
        limit: () => `${formatBounds(bounds)} here`,
      }}
      onChange={written => onChange(Number(written))}
      beginStep={beginStep}
    />
  );
}
