import { execFileSync } from "node:child_process";
import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // The complete map of routes comes with the first page, so that the shelf opens without the server.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true },
  // In a process of its own, because React selects its build when it is loaded.
  buildEnd: () => void execFileSync(process.execPath, ["offline/lay.mjs"], { stdio: "inherit" }),
} satisfies Config;
