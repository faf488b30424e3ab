import type { Share } from "#core";

const WIDTH = 120;

export const percent = (share: number) => `${Math.round(share * 100)} %`;

/** A share with its 95 % interval, as a bar with a whisker and as figures, with its n. */
export function ShareBar({ share }: { share: Share }) {
  const { low, high, hits, n } = share;
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <svg width={WIDTH} height="12" aria-hidden>
        <rect x="0" y="3" width={WIDTH} height="6" className="fill-sand" />
        <rect x="0" y="3" width={share.share * WIDTH} height="6" className="fill-fern" />
        <line x1={low * WIDTH} x2={high * WIDTH} y1="6" y2="6" className="stroke-ink" strokeWidth="1.5" />
        <line x1={low * WIDTH} x2={low * WIDTH} y1="2" y2="10" className="stroke-ink" />
        <line x1={high * WIDTH} x2={high * WIDTH} y1="2" y2="10" className="stroke-ink" />
      </svg>
      <span className="font-mono text-xs">
        {percent(share.share)}{" "}
        <span className="text-soft">
          {percent(low)} to {percent(high)}, {hits} of {n}
        </span>
      </span>
    </span>
  );
}
