import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // The whole map of routes comes with the first page: the shelf is found though the server has gone meanwhile.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true },
} satisfies Config;
