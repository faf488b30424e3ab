import type { WebDriver } from "selenium-webdriver";
import type { Driver } from "selenium-webdriver/chrome.js";
import { STORED_SWITCH } from "../app/shell/offline";

// The page of a tab between two tests: scripts of its documents, and the empty shelf from which the next test goes on.

/** The scripts that `runFirst` has added to a tab and that are not removed yet. */
const scripts = new WeakMap<WebDriver, string[]>();

/** Runs a script in every new document of the current tab, before any script of the page. */
export async function runFirst(driver: WebDriver, source: string): Promise<void> {
  const { identifier } = (await (driver as Driver).sendAndGetDevToolsCommand(
    "Page.addScriptToEvaluateOnNewDocument",
    { source },
  )) as unknown as { identifier: string };
  scripts.set(driver, [...(scripts.get(driver) ?? []), identifier]);
}

/** Removes the scripts added by `runFirst`. */
export async function forgetScripts(driver: WebDriver): Promise<void> {
  for (const identifier of scripts.get(driver) ?? [])
    await (driver as Driver).sendDevToolsCommand("Page.removeScriptToEvaluateOnNewDocument", { identifier });
  scripts.delete(driver);
}

/** Tabs whose page shows the shelf with nothing stored, so that the next test starts there. */
const cleared = new WeakSet<WebDriver>();

/** Returns whether the tab's page shows an empty shelf, from which the next test goes on without a load. */
export const goesOn = (driver: WebDriver): boolean => cleared.has(driver) && !scripts.has(driver);

/** Returns whether a test goes on from an empty shelf; from then on its page is its own. */
export function startsWithin(driver: WebDriver): boolean {
  const isWithin = goesOn(driver);
  cleared.delete(driver);
  return isWithin;
}

/** Goes to an address within the open page, as its links do, and waits until its view is shown. */
export async function goWithin(driver: WebDriver, path: string): Promise<void> {
  // The router that the framework leaves on the window: a click made during a navigation would miss what moves.
  await driver.executeAsyncScript(
    "window.__reactRouterDataRouter.navigate(arguments[0]).then(() => arguments[1]())",
    path,
  );
}

/** Replaces all records of the application by others, from its open page. */
export async function replaceRecords(driver: WebDriver, kits: readonly unknown[], parts: readonly unknown[]) {
  await driver.executeAsyncScript(
    `const [kits, parts, done] = arguments;
    const open = indexedDB.open("moss-tap");
    open.onsuccess = () => {
      const transaction = open.result.transaction(["kits", "parts", "recordings"], "readwrite");
      for (const name of transaction.objectStoreNames) transaction.objectStore(name).clear();
      for (const kit of kits) transaction.objectStore("kits").put(kit);
      for (const part of parts) transaction.objectStore("parts").put(part);
      transaction.oncomplete = () => { open.result.close(); done(); };
    };`,
    kits,
    parts,
  );
}

/**
 * Brings the open page to an empty shelf, where the next test can start without a load, up to half of a short
 * test's time. Returns false if it cannot: a test has left another page, or scripts for its documents.
 */
export async function clearPage(driver: WebDriver): Promise<boolean> {
  cleared.delete(driver);
  if (scripts.has(driver)) return false;
  const isOurs = await driver.executeScript<boolean>(
    `for (const button of document.querySelectorAll("[aria-label=Notices] button"))
       if (button.textContent.startsWith("Close")) button.click();
     return "__reactRouterDataRouter" in window && localStorage.getItem("${STORED_SWITCH}") === "off";`,
  );
  if (!isOurs) return false;
  await goWithin(driver, "/");
  await replaceRecords(driver, [], []);
  const isClear = await driver.executeScript<boolean>(
    `localStorage.clear();
     sessionStorage.clear();
     localStorage.setItem("${STORED_SWITCH}", "off");
     return !document.querySelector("[aria-label=Notices] li");`,
  );
  if (isClear) cleared.add(driver);
  return isClear;
}
