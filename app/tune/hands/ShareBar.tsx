import type { Share } from "#core";

const WIDTH = 120;

/** Formats a share in percent; one that is nearly none or all with a decimal, so that it does not read as none or all. */
export function percent(share: number): string {
  const hundred = share * 100;
  if (share > 0 && share < 0.01) return `${Math.max(0.1, Number(hundred.toFixed(1)))} %`;
  if (share < 1 && share > 0.99) return `${Math.min(99.9, Number(hundred.toFixed(1)))} %`;
  return `${Math.round(hundred)} %`;
}

/** A share with its 95 % interval, as a bar with a whisker and as figures with its n, beside it or below. */
export function ShareBar({ share, isStacked = false }: { share: Share; isStacked?: boolean }) {
  const { low, high, hits, n } = share;
  return (
    <span
      className={`inline-flex whitespace-nowrap ${isStacked ? "flex-col gap-0.5 py-1" : "items-center gap-2"}`}
    >
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
