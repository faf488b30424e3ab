import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig, type Plugin } from "vite";
import { runtimeFiles } from "./runtime/files.mjs";

/** Lays the runtime's files beside the page, under /runtime/. */
function runtimeBesidePage(): Plugin {
  return {
    name: "runtime-beside-page",
    applyToEnvironment: environment => environment.name === "client",
    async generateBundle() {
      for (const [name, source] of await runtimeFiles())
        this.emitFile({ type: "asset", fileName: `runtime/${name}`, source });
    },
    configureServer(server) {
      server.middlewares.use("/runtime/", (request, response, next) => {
        runtimeFiles().then(files => {
          const found = files.find(([name]) => request.url === `/${name}`);
          if (found) response.setHeader("content-type", "text/javascript").end(found[1]);
          else next();
        }, next);
      });
    },
  };
}

export default defineConfig({
  plugins: [tailwindcss(), reactRouter(), runtimeBesidePage()],
  worker: { format: "es" },
  build: { assetsInlineLimit: 0 },
});
