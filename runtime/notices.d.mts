export function noticesOf(paths: readonly string[]): Promise<string>;
