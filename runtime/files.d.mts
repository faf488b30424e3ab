/** See files.mjs, which plain Node runs. */
export function runtimeFiles(): Promise<[name: string, text: string][]>;
