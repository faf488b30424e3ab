// Lays a service worker beside the built application: its files, and its pages rendered without a server.
import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

// Must be set before React is loaded, which selects its build by it.
process.env.NODE_ENV = "production";
const { createRequestHandler } = await import("react-router");

const ROOT = fileURLToPath(new URL("..", import.meta.url));
const CLIENT = join(ROOT, "build/client");
const INLINE = /<(script|style)(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/\1>/g;

const hashOf = (text, kind, encoding) => createHash(kind).update(text).digest(encoding);

/** Bundles a TypeScript file of this folder into one text. */
async function bundle(name, format, define = {}) {
  const { outputFiles } = await build({
    entryPoints: [join(ROOT, "offline", name)],
    bundle: true,
    write: false,
    minify: true,
    format,
    target: "es2022",
    define: { "process.env.NODE_ENV": '"production"', ...define },
  });
  return outputFiles[0].text;
}

/** Renders a page and returns its text without nonces, and its policy with the hashes of its scripts instead. */
async function renderShell(handle, address) {
  const response = await handle(new Request(`http://localhost${address}`));
  const policy = response.headers.get("Content-Security-Policy");
  const nonce = /'nonce-([^']+)'/.exec(policy)[1];
  const text = (await response.text()).replaceAll(` nonce="${nonce}"`, "");
  if (text.includes(nonce)) throw new Error(`a nonce is left in the page of ${address}`);
  const hashes = { script: new Set(), style: new Set() };
  for (const [, kind, content] of text.matchAll(INLINE))
    hashes[kind].add(`'sha256-${hashOf(content, "sha256", "base64")}'`);
  const kept = policy
    .split("; ")
    .map(directive =>
      directive.replace(` 'nonce-${nonce}'`, () =>
        [...(directive.startsWith("script-src") ? hashes.script : hashes.style)]
          .map(hash => ` ${hash}`)
          .join(""),
      ),
    );
  return { text, policy: kept.join("; ") };
}

/** Returns all files of a folder, as paths below it. */
function filesIn(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(entry => entry.isFile())
    .map(entry => relative(folder, join(entry.parentPath, entry.name)))
    .sort();
}

const { SHELLS } = await import(
  `data:text/javascript;base64,${Buffer.from(await bundle("shells.ts", "esm")).toString("base64")}`
);
const handle = createRequestHandler(await import(join(ROOT, "build/server/index.js")), "production");
const policies = {};
for (const { file, address } of SHELLS) {
  const { text, policy } = await renderShell(handle, address);
  const other = await renderShell(handle, address.replace("kept", "another"));
  if (text !== other.text) throw new Error(`the page of ${address} depends on its kit`);
  policies[file] = policy;
  mkdirSync(dirname(join(CLIENT, file)), { recursive: true });
  writeFileSync(join(CLIENT, file), text);
}
const kept = filesIn(CLIENT)
  .filter(path => path !== "service-worker.js")
  .map(path => ({
    url: `/${path}`,
    // The name of an asset contains its hash.
    revision: path.startsWith("assets/") ? null : hashOf(readFileSync(join(CLIENT, path)), "sha256", "hex"),
  }));
const worker = await bundle("serviceWorker.ts", "iife", {
  KEPT_FILES: JSON.stringify(kept),
  POLICIES: JSON.stringify(policies),
});
writeFileSync(join(CLIENT, "service-worker.js"), worker);
