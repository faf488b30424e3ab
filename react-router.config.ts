import { execFileSync } from "node:child_process";
import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // The complete map of routes comes with the first page, so that the shelf opens without the server.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true },
  // In processes of their own, because React selects its build when it is loaded.
  buildEnd: () => {
    for (const script of ["link/socket/bundle.mjs", "offline/lay.mjs"])
      execFileSync(process.execPath, [script], { stdio: "inherit" });
  },
} satisfies Config;
