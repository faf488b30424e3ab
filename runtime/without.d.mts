import type { Plugin } from "esbuild";

export const withoutTexts: Plugin;
export const withoutStudies: Plugin;
