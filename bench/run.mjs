// Runs a benchmark, by its name, compiled as the application is. A runner of sources keeps the names of functions by wrapping
// each of them, closures made on every frame too, and so measures itself.
import { pathToFileURL } from "node:url";
import { compileScript } from "../cli/compile.mjs";

await import(pathToFileURL(await compileScript(`bench/${process.argv[2]}.ts`)).href);
