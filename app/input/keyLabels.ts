import { createStore } from "zustand/vanilla";

/** The letters of the user's own keyboard by W3C key code, where the browser tells; empty where it does not. */
export const keyLabels = createStore<ReadonlyMap<string, string>>(() => new Map());

interface LayoutMap {
  readonly forEach: (each: (letter: string, code: string) => void) => void;
}

/** Asks the browser for the user's keyboard layout. Where it cannot tell, keys go by their place on a US board. */
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
    console.info("The browser does not tell the keyboard's letters; keys go by their place.", error);
  }
}
