import { createContext } from "react";

/** The page's script nonce during server rendering; empty in the browser, which hides it from scripts. */
export const NonceContext = createContext<string | undefined>(undefined);
