/** The event that asks a canvas for its state; the answer is written into `detail`. */
const DESCRIBE = "moss-tap-describe";

/**
 * Answers questions about what a canvas shows, for automation such as the browser tests. Nothing is computed
 * until it is asked for. Ends with the signal.
 */
export function describeCanvas(
  canvas: HTMLCanvasElement,
  read: () => Readonly<Record<string, unknown>>,
  signal?: AbortSignal,
): void {
  canvas.addEventListener(
    DESCRIBE,
    event => Object.assign((event as CustomEvent<object>).detail, read()),
    signal ? { signal } : {},
  );
}
