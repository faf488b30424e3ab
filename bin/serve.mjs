// Serves the built application; says its address when it is ready, stops cleanly on Ctrl-C.
import { spawn } from "node:child_process";

const port = process.env.PORT ?? "3000";
const host = process.env.HOST ?? "127.0.0.1";
const server = spawn(process.execPath, ["node_modules/@react-router/serve/bin.js", "build/server/index.js"], {
  env: { ...process.env, PORT: port, HOST: host, NODE_ENV: "production" },
  stdio: ["ignore", "pipe", "inherit"],
  // A group of its own: the terminal's Ctrl-C reaches only this script, which then stops the server once.
  detached: true,
});
server.stdout.on("data", text => {
  if (String(text).includes("react-router-serve"))
    console.log(
      `Moss Tap is ready at http://${host === "127.0.0.1" ? "localhost" : host}:${port} (Ctrl-C stops it)`,
    );
});
let isStopping = false;
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) {
  process.on(signal, () => {
    if (isStopping) return;
    isStopping = true;
    server.kill("SIGTERM");
  });
}
server.on("exit", code => process.exit(isStopping ? 0 : (code ?? 1)));
