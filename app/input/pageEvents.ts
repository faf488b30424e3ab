import { BENCH_KEYS, type BenchAct } from "./benchKeys";
import { listStuckModifiers, type RawReport } from "./held";
import { followTyping } from "./typing";
import { wheelCode } from "./wheelCode";

/** Receives the page's events while the pad is awake. Times are the events' own, in ms. */
export interface PageListener {
  readonly report: (raw: RawReport, timeMs: number) => void;
  readonly codesDown: () => readonly string[];
  readonly isBound: (code: string) => boolean;
  readonly letStuckGo: (codes: readonly string[], timeMs: number) => void;
  /** A bench key went down. */
  readonly bench: (act: BenchAct) => void;
  /** Escape: the keys belong to the page again. */
  readonly leave: () => void;
  readonly letAllGo: (timeMs: number) => void;
  /** A text field took the keys, or gave them back. */
  readonly rest: (isResting: boolean, timeMs: number) => void;
  readonly hide: (isHidden: boolean, timeMs: number) => void;
  readonly padsChanged: () => void;
}

/** The attribute of elements over which pointer buttons play controls; elsewhere they operate the page. */
export const HANDS_SURFACE = "data-hands";

/**
 * Listens to keys (before any other listener of the page; a field in which one types has them), to pointer buttons over play surfaces, to loss of
 * focus and to pads connecting and disconnecting. Shortcuts with Ctrl or Meta remain the browser's unless that key
 * itself is bound. Returns a function that stops listening.
 */
export function listenToPage(listener: PageListener): () => void {
  const ending = new AbortController();
  const options = { capture: true, signal: ending.signal };

  /** Returns whether a modifier is held that neither of its keys binds, so that shortcuts with it are the browser's. */
  function isFree(isHeld: boolean, key: "Control" | "Meta"): boolean {
    return isHeld && !listener.isBound(`key:${key}Left`) && !listener.isBound(`key:${key}Right`);
  }

  const isOverHands = ({ target }: Event) =>
    target instanceof Element && target.closest(`[${HANDS_SURFACE}]`) !== null;

  /** A notch of the wheel is a press of one frame: it goes down and up at the same time. */
  function onWheel(event: WheelEvent): void {
    const code = wheelCode(event);
    if (code === undefined || !isOverHands(event) || !listener.isBound(code)) return;
    event.preventDefault();
    for (const value of [1, 0]) listener.report({ code, value, isRepeat: false }, event.timeStamp);
  }

  /** A right button that plays a control opens no menu. */
  function onMenu(event: Event): void {
    if (isOverHands(event) && listener.isBound("mouse:2")) event.preventDefault();
  }

  const typing = followTyping(listener.rest, ending.signal);

  function onKey(event: KeyboardEvent): void {
    const isDown = event.type === "keydown";
    if (typing.takes(event)) return;
    if (isDown && event.code === "Escape") {
      event.preventDefault();
      listener.leave();
      return;
    }
    const act = BENCH_KEYS[`key:${event.code}`];
    if (act) {
      event.preventDefault();
      event.stopPropagation();
      if (isDown && (!event.repeat || act === "step")) listener.bench(act);
      return;
    }
    const stuck = listStuckModifiers(event, listener.codesDown());
    if (stuck.length > 0) listener.letStuckGo(stuck, event.timeStamp);
    const isShortcut = isFree(event.ctrlKey, "Control") || isFree(event.metaKey, "Meta");
    if (isShortcut && isDown && !/^(Control|Meta)/.test(event.code)) return;
    event.preventDefault();
    event.stopPropagation();
    listener.report(
      { code: `key:${event.code}`, value: isDown ? 1 : 0, isRepeat: event.repeat },
      event.timeStamp,
    );
  }

  function onPointer(event: PointerEvent): void {
    const isDown = event.type === "pointerdown";
    const isOver = isOverHands(event);
    const code = `mouse:${event.button}`;
    if (event.pointerType !== "mouse" || (isDown && !isOver)) return;
    if (!isDown && !listener.codesDown().includes(code)) return;
    if (isOver) event.preventDefault();
    listener.report({ code, value: isDown ? 1 : 0, isRepeat: false }, event.timeStamp);
  }

  function onVisibility(): void {
    const now = performance.now();
    if (document.hidden) listener.letAllGo(now);
    listener.hide(document.hidden, now);
  }

  window.addEventListener("keydown", onKey, options);
  window.addEventListener("keyup", onKey, options);
  window.addEventListener("pointerdown", onPointer, options);
  window.addEventListener("pointerup", onPointer, options);
  window.addEventListener("wheel", onWheel, { ...options, passive: false });
  window.addEventListener("contextmenu", onMenu, options);
  // Not in the capture phase: only the window's loss of focus matters, not an element's.
  window.addEventListener("blur", () => listener.letAllGo(performance.now()), { signal: ending.signal });
  window.addEventListener("gamepadconnected", listener.padsChanged, options);
  window.addEventListener("gamepaddisconnected", listener.padsChanged, options);
  document.addEventListener("visibilitychange", onVisibility, options);
  return () => ending.abort();
}
