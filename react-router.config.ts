import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // The complete map of routes comes with the first page, so that the shelf opens without the server.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true },
} satisfies Config;
