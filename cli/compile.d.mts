/** See compile.mjs, which plain Node runs before anything is compiled. */
export const ROOT: string;
export function compileCommand(folder?: string): Promise<string>;
export function compileScript(script: string): Promise<string>;
