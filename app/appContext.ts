import { createContext } from "react-router";
import type { App } from "./compose";

/** The composed application, for loaders, which run outside React. */
export const appContext = createContext<App>();
