import { createStore } from "zustand/vanilla";

/** The letters of the user's keyboard by W3C key code; empty if the browser does not provide them. */
export const keyLabels = createStore<ReadonlyMap<string, string>>(() => new Map());

interface LayoutMap {
  readonly forEach: (each: (letter: string, code: string) => void) => void;
}

/** Requests the user's keyboard layout from the browser. Without it keys are named by a US layout. */
export async function readKeyLabels(): Promise<void> {
  const { keyboard } = navigator as Navigator & {
    keyboard?: { getLayoutMap?: () => Promise<LayoutMap> };
  };
  if (!keyboard?.getLayoutMap) return;
  try {
    const labels = new Map<string, string>();
    (await keyboard.getLayoutMap()).forEach((letter, code) => labels.set(code, letter.toUpperCase()));
    keyLabels.setState(labels, true);
  } catch (error) {
    console.info("The browser does not report the keyboard's letters; keys go by their place.", error);
  }
}
