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
    <>
      <h3 className="mt-3 text-sm font-semibold">What lengths in ms round to</h3>
      <table className="text-sm" data-testid="roundings">
        <tbody>
          {lengths.map(({ path, rule, label, written, rounding, at }) => (
            <tr key={path.join()} className="border-t border-line">
              <th scope="row" className="pr-4 text-left font-normal">
                {rule}: {label}, <span className="font-mono">{written}</span>{" "}
                <span className="text-soft">{rounding === "atLeast" ? "at least" : "at most"}</span>
              </th>
              {at.map(({ rateHz, frames, offMs }) => (
                <td key={rateHz} className="px-3 text-right font-mono">
                  {frames}f{" "}
                  <span className="text-soft">
                    at {rateHz}, {offWords(offMs)}
                  </span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
