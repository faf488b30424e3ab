import type { Server } from "node:http";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig, type Plugin } from "vite";
import type { AttachedLinks, LinkServerOptions } from "./link/socket/attachLinks";
import { runtimeFiles } from "./runtime/files.mjs";
import { noticesOf } from "./runtime/notices.mjs";
import { dependencies } from "./package.json";
import { bundlePlayer } from "./runtime/playerParts.mjs";

/** The fonts of the styles, which no module imports. */
const FONTS = ["fraunces", "atkinson-hyperlegible-next", "atkinson-hyperlegible-mono"].map(
  name => `node_modules/@fontsource-variable/${name}/index.css`,
);

/** Returns the files built besides the application, which it exports, by their paths. */
async function partsBesidePage(): Promise<ReadonlyMap<string, string>> {
  const [runtime, player] = await Promise.all([runtimeFiles(), bundlePlayer()]);
  const files = runtime.map(([name, text]): [string, string] => [`runtime/${name}`, text]);
  return new Map([...files, ["player/parts.json", JSON.stringify(player)]]);
}

/** A Vite plugin that serves and emits the runtime's files and the parts of a playable page. */
function layBesidePage(): Plugin {
  return {
    name: "lay-beside-page",
    applyToEnvironment: environment => environment.name === "client",
    async generateBundle(_options, bundle) {
      for (const [fileName, source] of await partsBesidePage())
        this.emitFile({ type: "asset", fileName, source });
      const paths = Object.values(bundle).flatMap(file => (file.type === "chunk" ? file.moduleIds : []));
      this.emitFile({
        type: "asset",
        fileName: "notices.txt",
        source: await noticesOf([...paths, ...FONTS]),
      });
    },
    configureServer(server) {
      server.middlewares.use((request, response, next) => {
        const path = request.url?.slice(1) ?? "";
        // Without a bundle, the notices are those of all packages that the application names.
        if (path === "notices.txt") {
          const named = Object.keys(dependencies).map(name => `node_modules/${name}/package.json`);
          noticesOf([...named, ...FONTS]).then(
            text => response.setHeader("content-type", "text/plain; charset=utf-8").end(text),
            next,
          );
          return;
        }
        if (!/^(runtime|player)\//.test(path)) return next();
        partsBesidePage().then(files => {
          const found = files.get(path);
          const type = path.endsWith(".json") ? "application/json" : "text/javascript";
          if (found) response.setHeader("content-type", type).end(found);
          else next();
        }, next);
      });
    },
  };
}

type LinkModule = { readonly attachLinks: (server: Server, options: LinkServerOptions) => AttachedLinks };

/** A Vite plugin that serves live links in development. */
function serveLinks(): Plugin {
  return {
    name: "serve-links",
    async configureServer(server) {
      const { attachLinks } = (await server.ssrLoadModule("/link/socket/attachLinks.ts")) as LinkModule;
      // Files of `public` have no index page in development.
      server.middlewares.use((request, _response, next) => {
        if (request.url === "/game/") request.url = "/game/index.html";
        next();
      });
      const isHostName = (name: string) => ["localhost", "127.0.0.1", "[::1]"].includes(name);
      if (server.httpServer) attachLinks(server.httpServer as Server, { isHostName, ownsUpgrades: false });
    },
  };
}

export default defineConfig({
  plugins: [tailwindcss(), reactRouter(), layBesidePage(), serveLinks()],
  worker: { format: "es" },
  build: { assetsInlineLimit: 0 },
});
