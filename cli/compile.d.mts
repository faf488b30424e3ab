/** See compile.mjs, which plain Node runs before anything is compiled. */
export function compileScript(script: string): Promise<string>;
