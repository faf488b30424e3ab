export const FAULTS: Readonly<Record<string, string>>;
