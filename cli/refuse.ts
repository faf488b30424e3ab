/** Ends with one line a fault on standard error, nothing more on standard output, and exit code 2. */
export function refuse(lines: readonly string[]): void {
  process.stderr.write(lines.map(line => `${line}\n`).join(""));
  process.exitCode = 2;
}
