/** Exits with code 2 after printing one line per fault to standard error. */
export function refuse(lines: readonly string[]): void {
  process.stderr.write(lines.map(line => `${line}\n`).join(""));
  process.exitCode = 2;
}
