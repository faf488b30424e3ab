// Runs a command from the sources of the project: its name, then its arguments. Paths are relative to the folder in which
// npm was called.
import { pathToFileURL } from "node:url";
import { compileCommand, compileScript, ROOT } from "./compile.mjs";

process.env.MOSS_TAP_PROJECT = ROOT;
if (process.argv[2] === "schemas") {
  process.chdir(ROOT);
  await import(pathToFileURL(await compileScript("cli/schemas.ts")).href);
} else {
  if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
  await import(pathToFileURL(`${await compileCommand()}/moss-tap.mjs`).href);
}
