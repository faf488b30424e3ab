import { useState } from "react";

function read(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/**
 * Returns a value that this browser keeps under a key, and its setter. `parse` reads the stored text, null if there is
 * none, and never throws. In a browser that keeps nothing the value lasts as long as the page.
 */
export function useStored<T>(key: string, parse: (text: string | null) => T): [T, (value: T) => void] {
  const [value, setValue] = useState(() => parse(read(key)));
  const set = (next: T) => {
    setValue(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // The page keeps it.
    }
  };
  return [value, set];
}
