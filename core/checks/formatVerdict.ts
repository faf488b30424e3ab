import type { Verdict } from "./compileCheck";

const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;

/** Formats a verdict as words: "it happened 3 frames too late, on frame 87". */
export function formatVerdict({ ok, why, slip = 0, f, count, reached = 0 }: Verdict): string {
  if (ok) {
    if (slip !== 0) return `it holds, ${counted(Math.abs(slip), "frame")} ${slip < 0 ? "early" : "late"}`;
    return "it holds";
  }
  switch (why) {
    case "never":
      return "it never happened";
    case "early":
    case "late":
      return `it happened ${counted(Math.abs(slip), "frame")} too ${why}, on frame ${f}`;
    case "happened":
      return `it happened, first on frame ${f}`;
    case "too-few":
    case "too-many":
      return `it happened ${counted(count ?? 0, "time")}, too ${why === "too-few" ? "few" : "many"}`;
    case "broken":
      return `only ${counted(reached, "event")} came in that order`;
    case "unanswered":
      return `${counted(count ?? 0, "press was", "presses were")} not answered, the first on frame ${f}`;
    case "differs":
      return `the story is another from frame ${f} on, after ${counted(reached, "event")} that agree`;
    case "no-take":
      return "there is no such take";
    default:
      return "it does not hold";
  }
}
