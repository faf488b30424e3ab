import { useMemo } from "react";
import { formatOnsets, ONSET_BIN_MS, ONSET_ENDS_MS, summarizeOnsets, type Onsets } from "./model/onsets";
import { TermWord } from "../ui/Explained";

const HEIGHT_PX = 44;
const TICKS_MS = [-200, -100, 0, 100, 200];

/** The distribution of a group as bars around the moment that judged its presses. `highest`: presses of the longest bar. */
function OnsetBars({ onsets, highest, widthPx }: { onsets: Onsets; highest: number; widthPx: number }) {
  const xAt = (ms: number) => ((ms + ONSET_ENDS_MS) / (2 * ONSET_ENDS_MS)) * widthPx;
  const barPx = xAt(ONSET_BIN_MS - ONSET_ENDS_MS);
  return (
    <svg width={widthPx} height={HEIGHT_PX + 16} role="img" aria-label={`Onset: ${formatOnsets(onsets)}`}>
      {onsets.bars.map((count, k) => {
        const height = count === 0 ? 0 : Math.max(3, (count / highest) * HEIGHT_PX);
        return (
          <rect
            key={k}
            x={k * barPx + 0.5}
            y={HEIGHT_PX - height}
            width={barPx - 1}
            height={height}
            className="fill-moss"
          />
        );
      })}
      {onsets.medianMs !== undefined && (
        <path
          d={`M${xAt(Math.max(-ONSET_ENDS_MS, Math.min(ONSET_ENDS_MS, onsets.medianMs)))} 0V${HEIGHT_PX}`}
          strokeWidth="2"
          className="stroke-dew"
        />
      )}
      <path d={`M0 ${HEIGHT_PX}H${widthPx}M${xAt(0)} ${HEIGHT_PX}v4`} className="fill-none stroke-edge" />
      {TICKS_MS.map(ms => (
        <text key={ms} x={xAt(ms)} y={HEIGHT_PX + 14} textAnchor="middle" className="fill-soft text-[11px]">
          {ms === 0 ? "0 ms" : ms < 0 ? `−${-ms}` : `+${ms}`}
        </text>
      ))}
    </svg>
  );
}

/** A row of the table of groups: how early or late their presses came, as a distribution for each. */
export function OnsetRow({ groups, widthPx }: { groups: readonly (readonly number[])[]; widthPx: number }) {
  const all = useMemo(() => groups.map(summarizeOnsets), [groups]);
  const highest = Math.max(1, ...all.flatMap(({ bars }) => bars));
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="max-w-36 py-2 pr-3 text-left font-serif text-base">
        <TermWord of="onset">Onset</TermWord>
      </th>
      {all.map((onsets, group) => (
        <td key={group} className="py-2 pr-3">
          <p className="text-xs text-soft">{formatOnsets(onsets)}</p>
          {onsets.n > 0 && <OnsetBars onsets={onsets} highest={highest} widthPx={widthPx} />}
        </td>
      ))}
    </tr>
  );
}
