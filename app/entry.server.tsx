import { randomBytes } from "node:crypto";
import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type EntryContext } from "react-router";
import { serverWorld } from "./browserWorld";
import { composeApp } from "./compose";
import { Provide } from "./Provide";
import { NonceContext } from "./shell/nonce";

const RENDER_TIMEOUT_MS = 10_000;

/**
 * Returns the content security policy: scripts by nonce only, no other host; style attributes are set by
 * React.
 */
function contentPolicy(nonce: string): string {
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}'`,
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

/** Adds security headers to data responses. */
export function handleDataRequest(response: Response): Response {
  response.headers.set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'");
  response.headers.set("Cache-Control", "no-cache");
  response.headers.set("X-Content-Type-Options", "nosniff");
  response.headers.set("Referrer-Policy", "no-referrer");
  return response;
}

function secure(headers: Headers, nonce: string): void {
  headers.set("Content-Type", "text/html; charset=utf-8");
  headers.set("Content-Security-Policy", contentPolicy(nonce));
  // A page names the files of its build: it is asked for anew each time.
  headers.set("Cache-Control", "no-cache");
  headers.set("X-Content-Type-Options", "nosniff");
  headers.set("Referrer-Policy", "no-referrer");
  headers.set("Cross-Origin-Opener-Policy", "same-origin");
  headers.set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), gamepad=(self)");
}

/** Renders a page, streamed to browsers and complete for robots, with security headers on every response. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
) {
  const nonce = randomBytes(16).toString("base64");
  const isWhole = isbot(request.headers.get("user-agent") ?? "");
  return new Promise<Response>((resolve, reject) => {
    let answer = status;
    const respond = () => {
      const body = new PassThrough();
      secure(headers, nonce);
      resolve(new Response(createReadableStreamFromReadable(body), { headers, status: answer }));
      pipe(body);
    };
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <Provide app={composeApp(serverWorld())}>
          <ServerRouter context={context} url={request.url} nonce={nonce} />
        </Provide>
      </NonceContext>,
      {
        nonce,
        ...(isWhole ? {} : { onShellReady: respond }),
        onAllReady() {
          clearTimeout(timer);
          if (isWhole) respond();
        },
        onShellError(error) {
          clearTimeout(timer);
          reject(error);
        },
        onError(error) {
          answer = 500;
          console.error(error);
        },
      },
    );
    const timer = setTimeout(abort, RENDER_TIMEOUT_MS);
  });
}
