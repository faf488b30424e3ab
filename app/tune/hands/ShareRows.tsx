import type { ShareRow } from "../model/shareRows";
import { ShareBar } from "./ShareBar";

/** A table of shares, with one column for each compared character; nothing without rows. */
export function ShareRows({
  label,
  sides,
  rows,
}: {
  label: string;
  /** The column headings. */
  sides: readonly string[];
  rows: readonly ShareRow[];
}) {
  if (rows.length === 0) return null;
  return (
    <table className="mt-2 text-sm" aria-label={label}>
      <caption className="text-left font-semibold">{label}</caption>
      {sides.length > 1 && (
        <thead>
          <tr>
            <td />
            {sides.map((side, k) => (
              <th key={k} scope="col" className="text-left font-normal text-soft">
                {side}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map(({ key, name, shares }) => (
          <tr key={key} className="border-t border-line">
            <th scope="row" className="max-w-60 truncate pr-4 text-left font-normal">
              {name}
            </th>
            {shares.map((share, k) => (
              <td key={k} className="pr-6">
                {share ? <ShareBar share={share} /> : <span className="text-soft">–</span>}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
