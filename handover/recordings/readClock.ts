/** A time as a clock shows it, after a date or alone: "2026-12-01T09:30:00.125Z", "9:30:00,125", "30:00.1". */
const CLOCK =
  /^(?:(\d{4})-(\d\d)-(\d\d)[T ])?(?:(\d{1,2}):)?(\d{1,2}):(\d\d)(?:[.,](\d{1,9}))?(?:Z|[+-]\d\d:?\d\d)?$/i;

/** A time of a clock. */
export interface ClockTime {
  /** Since midnight; since 1970 for one with a date. Its zone does not count: only differences do. */
  readonly seconds: number;
  /** The finest unit in which it is written, in seconds. */
  readonly finest: number;
}

/** Parses a time of a clock, with or without a date and hours; undefined for anything else. */
export function readClock(written: string): ClockTime | undefined {
  const found = CLOCK.exec(written);
  if (!found) return undefined;
  const [, year, month, day, hours, minutes, seconds, fraction] = found;
  // Its calendar, not its clock.
  // oxlint-disable-next-line no-restricted-globals
  const date = year === undefined ? 0 : Date.UTC(Number(year), Number(month) - 1, Number(day)) / 1000;
  const whole = Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds);
  const part = fraction === undefined ? 0 : Number(`0.${fraction}`);
  return { seconds: date + whole + part, finest: 10 ** -(fraction?.length ?? 0) };
}
