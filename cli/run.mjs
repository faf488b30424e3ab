// Runs a command of the project: its name, then its arguments.
import { pathToFileURL } from "node:url";
import { compileScript } from "./compile.mjs";

const [name] = process.argv.splice(2, 1);
await import(pathToFileURL(await compileScript(`cli/${name}.ts`)).href);
