// Runs a benchmark, by its name and with the arguments after it, compiled as the application is. A runner of sources keeps the names of functions by wrapping
// each of them, closures made on every frame too, and so measures itself.
import { pathToFileURL } from "node:url";
import { compileScript } from "../cli/compile.mjs";

// The benchmark reads its arguments as if it had been called itself.
const [name] = process.argv.splice(2, 1);
await import(pathToFileURL(await compileScript(`bench/${name}.ts`)).href);
