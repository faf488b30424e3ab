import { createContext, use } from "react";
import type { Notices } from "./notices";

export const NoticesContext = createContext<Notices | undefined>(undefined);

/** Returns the notices of this page. */
export function useNotices(): Notices {
  const notices = use(NoticesContext);
  if (!notices) throw new Error("a component is outside the page's notices");
  return notices;
}
