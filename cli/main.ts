import { Command, CommanderError } from "commander";
import { reasonOf } from "./output";
import { refuse } from "./refuse";
import { version } from "../package.json";

// A reader that has seen enough closes the pipe; that is no fault.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code !== "EPIPE") throw error;
});

/** The commands by name, each loaded when it is called: a check does not wait for what exports are made of. */
const COMMANDS: Readonly<Record<string, () => Promise<Command>>> = {
  check: async () => (await import("./check")).checkCommand(),
  judge: async () => (await import("./judge")).judgeCommand(),
  trace: async () => (await import("./trace")).traceCommand(),
  export: async () => (await import("./export")).exportCommand(),
  import: async () => (await import("./import")).importCommand(),
  link: async () => (await import("./link")).linkCommand(),
};

const program = new Command("moss-tap")
  .description("Timing rules of a game on takes: traces, checks, tables, exports and imports")
  .version(version)
  .exitOverride();
const called = process.argv[2] ?? "";
// Help, and the word for a command that does not exist, need them all.
const load = Object.hasOwn(COMMANDS, called) ? [COMMANDS[called]!] : Object.values(COMMANDS);
for (const command of load) program.addCommand((await command()).exitOverride());

try {
  await program.parseAsync();
} catch (error) {
  // Help, the version and faults of the command line are printed already.
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2;
  else refuse([`moss-tap: ${reasonOf(error)}`]);
}
