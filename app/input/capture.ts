import { createPadPoller, readPadCodes, type PadReading } from "./gamepads";
import type { PadMaps } from "./padMaps";
import { wheelCode } from "./wheelCode";

/** Collects codes pressed together into one binding. */
export interface BindingGatherer {
  /**
   * Reports that a code went down or up. Returns the binding when the first of the held codes comes up,
   * otherwise undefined.
   */
  readonly feed: (code: string, isDown: boolean) => readonly string[] | undefined;
}

/**
 * Creates a gatherer. A binding consists of the codes held when the first of them is released: one key, or
 * buttons held together.
 */
export function createBindingGatherer(): BindingGatherer {
  let held: string[] = [];
  return {
    feed(code, isDown) {
      if (isDown) {
        if (!held.includes(code)) held.push(code);
        return undefined;
      }
      if (!held.includes(code)) return undefined;
      const binding = held;
      held = [];
      return binding;
    },
  };
}

/** The value from which a pad's button or stick counts as intended. */
const MEANT_FROM = 0.6;

/** The result of asking for a binding. */
export type Captured =
  | { readonly kind: "binding"; readonly codes: readonly string[] }
  | { readonly kind: "clear" }
  | { readonly kind: "leave" };

/**
 * Waits for keys, pad buttons, half-axes, or pointer buttons and the wheel over `zone`, and reports once. Escape cancels,
 * Backspace alone clears. Returns a function that stops waiting. Ignores pad buttons already held at the
 * start. `readPads` reads the pads.
 */
export function captureBinding(
  zone: Element,
  report: (captured: Captured) => void,
  readPads: PadMaps["read"],
): () => void {
  const gatherer = createBindingGatherer();
  const poller = createPadPoller(readPads);
  const ending = new AbortController();
  const options = { capture: true, signal: ending.signal };
  const rested = new Set<string>();
  let animation = 0;

  function end(): void {
    ending.abort();
    cancelAnimationFrame(animation);
  }

  function answer(captured: Captured): void {
    end();
    report(captured);
  }

  function feed(code: string, isDown: boolean): void {
    const codes = gatherer.feed(code, isDown);
    if (!codes) return;
    if (codes.length === 1 && codes[0] === "key:Backspace") answer({ kind: "clear" });
    else answer({ kind: "binding", codes });
  }

  function onKey(event: KeyboardEvent): void {
    event.preventDefault();
    event.stopPropagation();
    const isDown = event.type === "keydown";
    if (isDown && event.code === "Escape") answer({ kind: "leave" });
    else if (!event.repeat) feed(`key:${event.code}`, isDown);
  }

  /** Suppresses the click that follows the release of a bound button. */
  function swallowClick(): void {
    const swallowing = new AbortController();
    const once = { capture: true, signal: swallowing.signal };
    const swallow = (event: Event) => {
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener("click", swallow, { ...once, once: true });
    window.addEventListener("auxclick", swallow, { ...once, once: true });
    for (const type of ["pointerdown", "keydown"])
      window.addEventListener(type, () => swallowing.abort(), once);
  }

  function onPointer(event: PointerEvent): void {
    if (event.pointerType !== "mouse" || !(event.target instanceof Node) || !zone.contains(event.target))
      return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === "pointerup") swallowClick();
    feed(`mouse:${event.button}`, event.type === "pointerdown");
  }

  /** A notch of the wheel is a whole press. */
  function onWheel(event: WheelEvent): void {
    if (!(event.target instanceof Node) || !zone.contains(event.target)) return;
    const code = wheelCode(event);
    if (code === undefined) return;
    event.preventDefault();
    feed(code, true);
    feed(code, false);
  }

  // One pad is bound as any pad; of several, each by its order.
  const pads = (readPads?.() ?? []).filter(pad => pad !== null && pad.connected) as PadReading[];
  const numbers = new Set(pads.length > 1 ? pads.map(({ index }) => index + 1) : []);
  const isOffered = (code: string) => numbers.size === 0 || !code.startsWith("pad:");

  function poll(): void {
    poller.poll((code, value) => {
      if (!isOffered(code)) return;
      if (value < MEANT_FROM) {
        rested.add(code);
        feed(code, false);
      } else if (rested.has(code)) feed(code, true);
    }, numbers);
    animation = requestAnimationFrame(poll);
  }

  for (const pad of pads)
    for (const prefix of ["pad", `pad${pad.index + 1}`])
      for (const [code, value] of readPadCodes(pad, prefix)) if (value < MEANT_FROM) rested.add(code);
  animation = requestAnimationFrame(poll);
  window.addEventListener("keydown", onKey, options);
  window.addEventListener("keyup", onKey, options);
  window.addEventListener("pointerdown", onPointer, options);
  window.addEventListener("pointerup", onPointer, options);
  window.addEventListener("wheel", onWheel, { ...options, passive: false });
  window.addEventListener("contextmenu", event => event.preventDefault(), options);
  return end;
}
