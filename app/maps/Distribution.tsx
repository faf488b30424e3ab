import { Histogram } from "../ui/Histogram";

/** The bars a distribution is parted into. */
const BINS = 30;

/** How some lengths of the takes are spread, behind a word that opens it; nothing where there is only one. Frames. */
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
