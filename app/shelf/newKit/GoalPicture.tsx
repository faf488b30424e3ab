import type { ReactNode } from "react";

const bark = "fill-bark";
const moss = "fill-moss";
const fern = "fill-fern";
const dash = "stroke-soft fill-none [stroke-dasharray:2_4]";

/** A press as a bar along the bottom of a picture. */
function Press({ from, to }: { from: number; to: number }) {
  return <rect x={from} y="52" width={to - from} height="8" rx="3" className={bark} />;
}

/** A disc for a performance. */
function Done({ x, y = 30 }: { x: number; y?: number }) {
  return <ellipse cx={x} cy={y} rx="7" ry="5.5" className={moss} />;
}

/** By goal: presses along the bottom, and their results above, as on the tape. */
const PICTURES: Readonly<Record<string, ReactNode>> = {
  jump: (
    <>
      <path d="M8 42h46M112 42h44" strokeWidth="5" className="stroke-bark" />
      <path d="M60 38C74 4 96 4 116 36" strokeWidth="2.5" className="fill-none stroke-moss" />
      <circle cx="60" cy="36" r="6" className={moss} />
      <path d="M54 46h12" strokeWidth="5" className="stroke-lichen" />
      <Press from={60} to={74} />
    </>
  ),
  "wall-kick": (
    <>
      <path d="M28 4v40" strokeWidth="6" className="stroke-bark" />
      <path d="M74 42C58 30 46 24 38 22" strokeWidth="2.5" className={`${dash} stroke-moss`} />
      <circle cx="38" cy="22" r="6" className={moss} />
      <path d="M42 18C64 0 92 4 116 34" strokeWidth="2.5" className="fill-none stroke-moss" />
      <path d="m109 30 7 5 1-9" strokeWidth="2.5" className="fill-none stroke-moss" />
      <Press from={66} to={78} />
      <Press from={92} to={102} />
    </>
  ),
  "fast-fall": (
    <>
      <path d="M30 42C40 10 60 4 76 8" strokeWidth="2.5" className="fill-none stroke-moss" />
      <path d="M76 8C98 12 108 24 116 42" strokeWidth="2" className={dash} />
      <path d="M76 10v30m-7-8 7 8 7-8" strokeWidth="2.5" className="fill-none stroke-moss" />
      <circle cx="76" cy="9" r="6" className={moss} />
      <path d="M14 46h124" strokeWidth="4" className="stroke-bark" />
      <Press from={30} to={44} />
      <Press from={70} to={90} />
    </>
  ),
  drop: (
    <>
      <path d="M40 20h84" strokeWidth="4" strokeDasharray="12 4" className="stroke-bark" />
      <circle cx="82" cy="12" r="6" className={moss} />
      <path d="M82 22v18m-6-6 6 6 6-6" strokeWidth="2.5" className="fill-none stroke-moss" />
      <path d="M20 47h124" strokeWidth="4" className="stroke-bark" />
      <Press from={74} to={92} />
      <Press from={98} to={116} />
    </>
  ),
  dash: (
    <>
      <circle cx="24" cy="34" r="6" className={moss} />
      <path d="M34 34h44" strokeWidth="2.5" className="fill-none stroke-moss" />
      <path d="M34 27h30M34 41h30" strokeWidth="2" className={dash} />
      <path d="M78 34C90 6 116 4 134 30" strokeWidth="2.5" className="fill-none stroke-moss" />
      <path d="m127 27 7 4 1-9" strokeWidth="2.5" className="fill-none stroke-moss" />
      <Done x={78} y={34} />
      <Press from={20} to={32} />
      <Press from={72} to={90} />
    </>
  ),
  charge: (
    <>
      <path d="M24 44C70 42 92 30 108 10V44z" className={fern} />
      <path d="M58 40v4M84 32v12M108 10v34" strokeWidth="2" className="stroke-moss" />
      <Done x={120} y={16} />
      <Press from={24} to={110} />
    </>
  ),
  chain: (
    <>
      {[12, 58, 104].map(x => (
        <g key={x}>
          <rect x={x} y="28" width="12" height="12" className={fern} />
          <rect x={x + 12} y="24" width="10" height="16" className={moss} />
          <rect x={x + 22} y="32" width="18" height="8" className="fill-sand" />
        </g>
      ))}
      <path d="M46 20h12M92 20h12" className={dash} strokeWidth="2" />
      <Press from={12} to={20} />
      <Press from={44} to={52} />
      <Press from={90} to={98} />
    </>
  ),
  "tap-hold": (
    <>
      <Done x={34} />
      <path d="M76 42V26L118 14V42z" className={fern} />
      <ellipse cx="128" cy="20" rx="9" ry="7" className={moss} />
      <Press from={20} to={32} />
      <Press from={76} to={126} />
    </>
  ),
  double: (
    <>
      <path d="M46 42c6-22 30-22 36 0" className={dash} strokeWidth="2" />
      <Done x={98} y={28} />
      <path d="M110 28h32m-8-6 8 6-8 6" className="fill-none stroke-moss" strokeWidth="2.5" />
      <Press from={38} to={50} />
      <Press from={78} to={90} />
    </>
  ),
  motion: (
    <>
      <path d="M30 8v28m-6-7 6 7 6-7" className="fill-none stroke-bark" strokeWidth="2.5" />
      <path d="M56 10 78 32m-9 0h9v-9" className="fill-none stroke-bark" strokeWidth="2.5" />
      <path d="M92 22h28m-7-6 7 6-7 6" className="fill-none stroke-bark" strokeWidth="2.5" />
      <Done x={140} y={22} />
      <Press from={132} to={146} />
    </>
  ),
  prompt: (
    <>
      <rect x="18" y="16" width="44" height="20" className="fill-none stroke-lichen" strokeWidth="2" />
      <rect x="62" y="14" width="64" height="24" className="fill-lichen" />
      <path d="M94 8v36" className="stroke-dew" strokeWidth="2" />
      <Done x={97} y={26} />
      <Press from={94} to={106} />
    </>
  ),
};

/** A goal as a small picture of time. */
export function GoalPicture({ goal }: { goal: string }) {
  return (
    <svg viewBox="0 0 164 66" aria-hidden className="block h-16 w-40 shrink-0 max-sm:h-10 max-sm:w-24">
      {PICTURES[goal]}
      <path d="M4 63h156" className="stroke-line" strokeWidth="1.5" />
    </svg>
  );
}
