// Runs a command of the project: its name, then what is given to it.
import { pathToFileURL } from "node:url";
import { compileScript } from "./compile.mjs";

const [name] = process.argv.splice(2, 1);
await import(pathToFileURL(await compileScript(`cli/${name}.ts`)).href);
