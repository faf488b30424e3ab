import { roundLengths, type Kit } from "#core";

/** Formats the error of a rounded length, with its sign. */
function offWords(offMs: number): string {
  if (offMs === 0) return "exact";
  return `${offMs > 0 ? "+" : "−"}${Math.abs(Math.round(offMs * 10) / 10)} ms`;
}

/** The frames to which every length in ms rounds at each rate; nothing without such lengths. */
export function Roundings({ kit, rates }: { kit: Kit; rates: readonly number[] }) {
  const lengths = roundLengths(kit, rates);
  if (lengths.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      <table className="mt-3 text-sm" data-testid="roundings">
        <thead>
          <tr>
            <th scope="col" className="pr-4 text-left font-semibold">
              What lengths in ms round to
            </th>
            {rates.map(rate => (
              <th key={rate} scope="col" className="px-3 text-right font-mono font-normal text-soft">
                at {rate}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lengths.map(({ path, rule, label, written, rounding, at }) => (
            <tr key={path.join()} className="border-t border-line">
              <th scope="row" className="pr-4 text-left font-normal">
                {rule}: {label}, <span className="font-mono">{written}</span>{" "}
                <span className="text-soft">{rounding === "atLeast" ? "at least" : "at most"}</span>
              </th>
              {at.map(({ rateHz, frames, offMs }) => (
                <td key={rateHz} className="px-3 text-right font-mono whitespace-nowrap">
                  {frames}f, <span className="text-soft">{offWords(offMs)}</span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
