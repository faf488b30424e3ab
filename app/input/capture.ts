import { browserPads, createPadPoller } from "./gamepads";

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
 * Waits for keys, pad buttons, half-axes, or pointer buttons over `zone`, and reports once. Escape cancels,
 * Backspace alone clears. Returns a function that stops waiting. Ignores pad buttons already held at the
 * start.
 */
export function captureBinding(zone: Element, report: (captured: Captured) => void): () => void {
  const gatherer = createBindingGatherer();
  const poller = createPadPoller(browserPads());
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

  function poll(): void {
    poller.poll((code, value) => {
      if (value < MEANT_FROM) {
        rested.add(code);
        feed(code, false);
      } else if (rested.has(code)) feed(code, true);
    });
    animation = requestAnimationFrame(poll);
  }

  poller.poll(code => rested.delete(code));
  for (const pad of browserPads()?.() ?? []) {
    pad?.buttons.forEach((button, b) => button.value < MEANT_FROM && rested.add(`pad:${b}`));
    pad?.axes.forEach((axis, a) => {
      if (axis < MEANT_FROM) rested.add(`pad:axis${a}+`);
      if (-axis < MEANT_FROM) rested.add(`pad:axis${a}-`);
    });
  }
  animation = requestAnimationFrame(poll);
  window.addEventListener("keydown", onKey, options);
  window.addEventListener("keyup", onKey, options);
  window.addEventListener("pointerdown", onPointer, options);
  window.addEventListener("pointerup", onPointer, options);
  window.addEventListener("contextmenu", event => event.preventDefault(), options);
  return end;
}
