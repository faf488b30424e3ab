/** See bundle.mjs, which plain Node runs. */
export function bundleRuntime(): Promise<string>;
