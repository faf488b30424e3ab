import { browserPads, createPadPoller } from "./gamepads";

/** Gathers what is pressed together into one binding. */
export interface BindingGatherer {
  /** A code went down or came up. Gives the binding when the first of those held comes up, else undefined. */
  readonly feed: (code: string, isDown: boolean) => readonly string[] | undefined;
}

/** A binding is what was held when the first of it was let go: one key, or buttons held together. */
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

/** How far a pad's button or stick must go to be meant. */
const MEANT_FROM = 0.6;

/** What a hand can answer when it is asked for a binding. */
export type Captured =
  | { readonly kind: "binding"; readonly codes: readonly string[] }
  | { readonly kind: "clear" }
  | { readonly kind: "leave" };

/**
 * Waits for keys, pad buttons, half-axes, or pointer buttons over `zone`. Escape leaves, Backspace alone clears. Tells
 * once; gives what ends the waiting. A pad's buttons already held when it begins are not meant.
 */
export function captureBinding(zone: Element, tell: (captured: Captured) => void): () => void {
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
    tell(captured);
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

  /** The click that follows a button let go is part of the binding, and no click on what lies under it. */
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
