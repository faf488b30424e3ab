import { Histogram } from "../ui/Histogram";

/** The number of bars. */
const BINS = 30;

/** The distribution of lengths in the takes, behind a disclosure; hidden for a single value. Frames. */
export function Distribution({
  words,
  label,
  values,
  upTo,
}: {
  words: string;
  label: string;
  values: readonly number[];
  upTo: number;
}) {
  if (values.length < 2) return null;
  return (
    <details className="mt-1 text-sm">
      <summary className="text-moss">{words}</summary>
      <Histogram
        label={label}
        values={values}
        binWidth={Math.max(1, Math.ceil(upTo / BINS))}
        bins={BINS}
        unit="f"
      />
    </details>
  );
}
