import { useEffect, useRef, type KeyboardEvent, type PointerEvent, type SVGProps } from "react";
import { arrowOf, type Kit, type Stick } from "#core";
import { setThresholds } from "../edits/controlEdits";
import { followPointer } from "../ui/followPointer";
import { keepTouch } from "../ui/keepTouch";
import { dragKit } from "../document/dragKit";
import { useWorkbench } from "../document/workbenchContext";
import { usePad, usePadState } from "../input/context";
import type { Pad } from "../input/pad";
import { shapeStick, type Sides } from "../input/stickShape";

const SIZE = 168;
const RADIUS = 72;
const CENTRE = SIZE / 2;

function sidesOf(stick: Stick, controls: readonly { readonly id: string }[]): Sides {
  const at = (id: string) => controls.findIndex(control => control.id === id);
  return { up: at(stick.up), down: at(stick.down), left: at(stick.left), right: at(stick.right) };
}

/** Returns the current direction digit of a stick, before mirroring. */
export function useDigit(stick: Stick): number {
  return usePadState(({ session }) => {
    if (!session) return 5;
    const { down } = session.state;
    const { up, down: low, left, right } = sidesOf(stick, session.program.controls);
    return 5 + (down[right] ?? 0) - (down[left] ?? 0) + 3 * ((down[up] ?? 0) - (down[low] ?? 0));
  });
}

/** Draws the stick's path over the last second, without a render. */
function useTrace(stick: Stick) {
  const pad = usePad();
  const line = useRef<SVGPolylineElement>(null);
  const spot = useRef<SVGCircleElement>(null);
  useEffect(() => {
    let past: string[] = [];
    let last = -1;
    let drawn = "";
    return pad.subscribe(({ session, frame }) => {
      if (!session || frame === last) return;
      if (frame < last) past = [];
      last = frame;
      const { values } = session;
      const { up, down, left, right } = sidesOf(stick, session.program.controls);
      const x = CENTRE + ((values[right] ?? 0) - (values[left] ?? 0)) * RADIUS;
      const y = CENTRE - ((values[up] ?? 0) - (values[down] ?? 0)) * RADIUS;
      past = [...past, `${x.toFixed(1)},${y.toFixed(1)}`].slice(-session.program.rateHz);
      const next = past.join(" ");
      if (next === drawn) return;
      drawn = next;
      line.current?.setAttribute("points", next);
      spot.current?.setAttribute("cx", x.toFixed(1));
      spot.current?.setAttribute("cy", y.toFixed(1));
    });
  }, [pad, stick]);
  return { line, spot };
}

/** Plays a stick's four controls by a pointer's place on the dial. */
function playStick(pad: Pad, stick: Stick, x: number, y: number): void {
  const { up, down, left, right } = shapeStick(x, -y, stick);
  const round = (value: number) => Math.round(value * 100) / 100;
  pad.holdOnScreen(
    [stick.right, round(right)],
    [stick.left, round(left)],
    [stick.up, round(up)],
    [stick.down, round(down)],
  );
}

/** Returns the position of a pointer on a dial; 1 is the rim. */
function placeOn(svg: SVGSVGElement, { clientX, clientY }: { clientX: number; clientY: number }) {
  const box = svg.getBoundingClientRect();
  return {
    x: ((clientX - box.left) / box.width - 0.5) * (SIZE / RADIUS),
    y: ((clientY - box.top) / box.height - 0.5) * (SIZE / RADIUS),
  };
}

const WAYS = [1, 2, 3, 4, 6, 7, 8, 9] as const;

/** The eight directions; the current one in ink. */
function Ways({ digit }: { digit: number }) {
  return WAYS.map(way => {
    const out = RADIUS * (way % 2 === 0 ? 0.86 : 0.64);
    return (
      <text
        key={way}
        x={CENTRE + (((way - 1) % 3) - 1) * out}
        y={CENTRE - (Math.floor((way - 1) / 3) - 1) * out}
        textAnchor="middle"
        dominantBaseline="central"
        className={`font-mono text-xs ${way === digit ? "fill-ink font-semibold" : "fill-soft"}`}
      >
        {arrowOf(way)}
      </text>
    );
  });
}

/** Returns the press and release thresholds of a stick, and their setter. Shares of the full way. */
function useThresholds(kit: Kit, stick: Stick) {
  const workbench = useWorkbench();
  const ids = [stick.up, stick.down, stick.left, stick.right];
  const controls = kit.controls.filter(control => ids.includes(control.id));
  const press = Math.max(0.01, ...controls.map(control => control.pressAt ?? 0.5));
  return {
    press,
    release: Math.min(press, ...controls.map(control => control.releaseAt ?? Math.min(0.4, press))),
    set: (value: number) =>
      workbench.editKit(`dead zone of ${stick.name}`, now => {
        const pressed = setThresholds(now, ids, "pressAt", value);
        return setThresholds(pressed, ids, "releaseAt", Math.max(0.01, value * 0.8));
      }),
  };
}

/** The outline of all places at some distance from the centre: a circle or a square, as the stick's zone is. */
function ZoneOutline({
  isSquare,
  size,
  ...look
}: { isSquare: boolean; size: number } & SVGProps<SVGElement>) {
  const { ref: _ref, ...rest } = look;
  if (!isSquare) return <circle cx={CENTRE} cy={CENTRE} r={size} fill="none" {...rest} />;
  const from = CENTRE - size;
  return <rect x={from} y={from} width={2 * size} height={2 * size} fill="none" {...rest} />;
}

/** The edge of the dead zone, moved by dragging or by keys. */
function DeadZone({
  name,
  press,
  isSquare,
  onChange,
}: {
  name: string;
  press: number;
  isSquare: boolean;
  onChange: (press: number) => void;
}) {
  const workbench = useWorkbench();
  const onPointerDown = (event: PointerEvent<SVGElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const svg = event.currentTarget.ownerSVGElement!;
    dragKit(workbench, event, moved => {
      const { x, y } = placeOn(svg, moved);
      onChange(isSquare ? Math.max(Math.abs(x), Math.abs(y)) : Math.hypot(x, y));
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 0.01, ArrowRight: 0.01, ArrowDown: -0.01, ArrowLeft: -0.01 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onChange(press + by);
  };
  const zone = { isSquare, size: press * RADIUS };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Dead zone of ${name}`}
      aria-valuemin={0.01}
      aria-valuemax={1}
      aria-valuenow={press}
      ref={keepTouch}
      className="cursor-move"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      <ZoneOutline {...zone} stroke="transparent" strokeWidth="12" />
      <ZoneOutline {...zone} className="stroke-ink" strokeWidth="1.75" />
      <circle cx={CENTRE + press * RADIUS} cy={CENTRE} r="4.5" className="fill-ink" />
    </g>
  );
}

/**
 * A stick as a dial: its position and path, the draggable edge of its dead zone, and the eight directions.
 * Dragging the middle plays it.
 */
export function StickDial({ kit, stick }: { kit: Kit; stick: Stick }) {
  const pad = usePad();
  const { line, spot } = useTrace(stick);
  const digit = useDigit(stick);
  const { press, release, set } = useThresholds(kit, stick);
  const isSquare = stick.zone !== "circle";
  const onPlay = (event: PointerEvent<SVGSVGElement>) => {
    event.preventDefault();
    const svg = event.currentTarget;
    const play = (at: { clientX: number; clientY: number }) => {
      const { x, y } = placeOn(svg, at);
      playStick(pad, stick, x, y);
    };
    const letGo = () => playStick(pad, stick, 0, 0);
    followPointer(event, { move: play, end: letGo, cancel: letGo });
    play(event);
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className="size-[168px] shrink-0 touch-none"
      role="group"
      aria-label={`Dial of ${stick.name}, facing ${digit}`}
      data-testid={`dial-${stick.id}`}
      data-digit={digit}
      onPointerDown={onPlay}
    >
      <circle cx={CENTRE} cy={CENTRE} r={RADIUS} className="fill-leaf stroke-line" strokeWidth="2" />
      <ZoneOutline
        isSquare={isSquare}
        size={release * RADIUS}
        className="stroke-soft"
        strokeDasharray="3 4"
      />
      <Ways digit={digit} />
      <polyline ref={line} fill="none" strokeWidth="1.5" className="stroke-dew" />
      <circle ref={spot} cx={CENTRE} cy={CENTRE} r="6" className="fill-bark" />
      <DeadZone name={stick.name} press={press} isSquare={isSquare} onChange={set} />
    </svg>
  );
}
