import { ownValue } from "#core";
import type { Notify } from "../ui/notices";

const WORKER = "/service-worker.js";
const SWITCH = "offline";
/** The key in localStorage under which the switch is kept. */
export const STORED_SWITCH = "moss-tap-offline";

/** The time after which the application is kept for use without a server: the first view is shown by then. */
const KEEP_AFTER_MS = 2000;

/** The longest time to wait at the start until a newer build has replaced the kept one. */
const MAX_SWITCH_MS = 3000;

/** Returns the service workers of this browser; undefined if it has or allows none, or in development. */
function allowed(): ServiceWorkerContainer | undefined {
  return import.meta.env.PROD && "serviceWorker" in navigator ? navigator.serviceWorker : undefined;
}

/** The words of the switch in the address, and what is wanted by each. */
const WANTED = { off: "off", tab: "off", on: "at once" } as const;

const wantedBy = (written: string | null) => ownValue(WANTED, written ?? "") ?? "later";

/**
 * Reads the switch in the address, which holds until it is changed, and removes it from the address: `?offline=on`, `?offline=tab`,
 * with which every view is fetched ahead for this tab alone, or `?offline=off`, with which nothing is. Returns whether the application is to be kept: later, at once if the switch is on, or not at all.
 * Call it before the router reads the address.
 */
export function readOfflineSwitch(): "later" | "at once" | "off" {
  const address = new URL(location.href);
  const written = address.searchParams.get(SWITCH);
  try {
    if (written !== null) localStorage.setItem(STORED_SWITCH, written);
    return wantedBy(localStorage.getItem(STORED_SWITCH));
  } catch {
    return wantedBy(written);
  } finally {
    address.searchParams.delete(SWITCH);
    if (written !== null) history.replaceState(history.state, "", address);
  }
}

/** Returns whether the other views are fetched ahead, so that they open without the server. */
export function isFetchedAhead(): boolean {
  try {
    return localStorage.getItem(STORED_SWITCH) !== "off";
  } catch {
    return true;
  }
}

/** Forgets the kept application. */
async function forget(workers: ServiceWorkerContainer): Promise<void> {
  const found = await workers.getRegistrations();
  await Promise.all(found.map(registration => registration.unregister()));
  const names = found.length > 0 ? await caches.keys() : [];
  await Promise.all(names.map(name => caches.delete(name)));
}

/** Asks a waiting worker to start if this is the only page; resolves with whether it has started. */
function startIfAlone(workers: ServiceWorkerContainer, waiting: ServiceWorker): Promise<boolean> {
  return new Promise(resolve => {
    const { port1, port2 } = new MessageChannel();
    setTimeout(() => resolve(false), MAX_SWITCH_MS);
    workers.addEventListener("controllerchange", () => resolve(true), { once: true });
    port1.onmessage = ({ data }) => data === false && resolve(false);
    waiting.postMessage("start if alone", [port2]);
  });
}

/**
 * Starts the newest kept build, which must happen before a page opens a kit. Resolves with false if the page is
 * about to be loaded again for it.
 */
export async function startNewestBuild(): Promise<boolean> {
  const workers = allowed();
  if (!workers?.controller) return true;
  const waiting = (await workers.getRegistration().catch(() => undefined))?.waiting;
  if (!waiting || !(await startIfAlone(workers, waiting))) return true;
  location.reload();
  return false;
}

/**
 * Keeps the application in this browser, so that it opens without its server, and announces a newer one; forgets it if that is not wanted.
 */
export function keepOffline(wanted: ReturnType<typeof readOfflineSwitch>, notify: Notify): void {
  const workers = allowed();
  if (!workers) return;
  if (wanted === "off") return void forget(workers).catch(() => undefined);
  const announce = (worker: ServiceWorker) => {
    if (worker.state !== "installed" || !workers.controller) return;
    notify({
      tone: "plain",
      title: "A newer Moss Tap is here. It starts when all its tabs are closed and one is opened again.",
      details: [],
    });
  };
  const watch = (worker: ServiceWorker | null) => {
    if (!worker) return;
    announce(worker);
    worker.addEventListener("statechange", () => announce(worker));
  };
  setTimeout(
    () => {
      workers.register(WORKER).then(
        registration => {
          watch(registration.waiting);
          watch(registration.installing);
          registration.addEventListener("updatefound", () => watch(registration.installing));
        },
        // Storage is forbidden: the application works, but only with its server.
        () => undefined,
      );
    },
    wanted === "at once" ? 0 : KEEP_AFTER_MS,
  );
}
