import { Command, CommanderError } from "commander";
import { checkCommand } from "./check";
import { exportCommand } from "./export";
import { importCommand } from "./import";
import { judgeCommand } from "./judge";
import { linkCommand } from "./link";
import { reasonOf } from "./output";
import { refuse } from "./refuse";
import { traceCommand } from "./trace";
import { version } from "../package.json";

// A reader that has seen enough closes the pipe; that is no fault.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code !== "EPIPE") throw error;
});

const program = new Command("moss-tap")
  .description("Timing rules of a game on takes: traces, checks, tables, exports and imports")
  .version(version)
  .exitOverride();
for (const command of [checkCommand, judgeCommand, traceCommand, exportCommand, importCommand, linkCommand])
  program.addCommand(command().exitOverride());

try {
  await program.parseAsync();
} catch (error) {
  // Help, the version and faults of the command line are printed already.
  if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2;
  else refuse([`moss-tap: ${reasonOf(error)}`]);
}
