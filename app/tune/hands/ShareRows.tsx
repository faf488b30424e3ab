import type { ReactNode } from "react";
import type { HandsColumn } from "../../document/studySettings";
import type { ShareRow } from "../model/shareRows";
import { ShareBar } from "./ShareBar";

/** The number of columns from which figures are below their bars. */
const STACKED_FROM = 3;

/** A table of shares, with one column for each group of takes and compared character; nothing without rows. */
export function ShareRows({
  label,
  caption = label,
  columns,
  rows,
}: {
  label: string;
  /** The label as it is shown, with its terms explained. */
  caption?: ReactNode;
  columns: readonly HandsColumn[];
  rows: readonly ShareRow[];
}) {
  if (rows.length === 0) return null;
  const isHandNamed = new Set(columns.map(({ hand }) => hand)).size > 1;
  return (
    <div className="overflow-x-auto">
      <table className="mt-2 min-w-[38rem] text-sm" aria-label={label}>
        <caption className="text-left font-semibold">{caption}</caption>
        {columns.length > 1 && (
          <thead>
            <tr className="align-bottom">
              <td />
              {columns.map(({ group, hand }, k) => (
                <th key={k} scope="col" className="pr-6 text-left font-normal">
                  {group && <b className="block max-w-48 truncate">{group}</b>}
                  {isHandNamed && <span className="text-soft">{hand}</span>}
                </th>
              ))}
            </tr>
          </thead>
        )}
        <tbody>
          {rows.map(({ key, name, shares }) => (
            <tr key={key} className="border-t border-line">
              <th scope="row" className="w-48 max-w-60 truncate pr-4 text-left font-normal">
                {name}
              </th>
              {shares.map((share, k) => (
                <td key={k} className="pr-6">
                  {share ? (
                    <ShareBar share={share} isStacked={columns.length >= STACKED_FROM} />
                  ) : (
                    <span className="text-soft">–</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
