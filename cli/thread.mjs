// Where a thread begins: TypeScript is read as in the command itself, then the thread's own script.
import { workerData } from "node:worker_threads";
import { register } from "tsx/esm/api";

register();
await import(workerData.script);
