import { createServer, request, type Server } from "node:http";
import { expect, test } from "vitest";
import {
  find,
  openBrowser,
  press,
  startApp,
  waitFor,
  clickOn,
  type Page,
  openAnother,
  openForm,
} from "./browser";
import { useSession } from "./session";
import { STORED_SWITCH } from "../app/shell/offline";

const session = useSession();

/** Serves an application through a gate that can be closed, and that can serve its service worker as of a new build. */
async function startGate() {
  const app = await startApp();
  const state = { isOpen: true, isNewer: false };
  const server: Server = createServer((asked, answer) => {
    if (!state.isOpen) return void asked.socket.destroy();
    const isWorker = asked.url === "/service-worker.js";
    const { "if-none-match": _, "if-modified-since": __, ...headers } = asked.headers;
    headers["accept-encoding"] = "identity";
    const onward = request(new URL(asked.url!, app.address), { method: asked.method, headers }, found => {
      if (isWorker) delete found.headers["content-length"];
      answer.writeHead(found.statusCode!, found.headers);
      if (isWorker && state.isNewer) answer.write("// a newer build\n");
      found.pipe(answer);
    });
    asked.pipe(onward);
  });
  await new Promise<void>(resolve => server.listen(0, "127.0.0.1", resolve));
  const address = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
  const stop = () => {
    server.close();
    server.closeAllConnections();
    app.stop();
  };
  return { address, state, stop };
}

/** Opens the shelf, a demo, all views and a page that does not exist. */
async function worksAlone({ driver, address }: Page): Promise<void> {
  await driver.get(address);
  await clickOn(driver, "[data-testid=kit-belfry-runner] a");
  await find(driver, "[data-testid=stage]");
  for (const view of ["Wire", "Shape", "Play", "Tune", "Prove", "Hand over"]) {
    await press(driver, view);
    await find(driver, `//a[.="${view}" and @aria-current="page"]`);
  }
  await openForm(driver, "Runtime");
  await find(driver, '//li[contains(., "moss-tap-runtime.mjs")]');
  await driver.get(`${address}/kit/belfry-runner/shape`);
  await find(driver, 'nav[aria-label="Rules"]');
  await driver.get(`${address}/nowhere/else`);
  await find(driver, '//p[contains(., "no page at this address")]');
  const logs = await driver.manage().logs().get("browser");
  const faults = logs.filter(({ level }) => level.name === "SEVERE").map(({ message }) => message);
  expect(faults.filter(message => !message.includes("404"))).toEqual([]);
}

/** Waits until the application is kept in the browser. */
const waitUntilKept = ({ driver }: Page) =>
  waitFor(driver, "the kept application", () =>
    driver.executeAsyncScript<boolean>(
      `const done = arguments[0];
       navigator.serviceWorker.getRegistration().then(found => done(found?.active?.state === "activated"))`,
    ),
  );

test("it opens and works without its server in a browser started anew, and a newer build starts when it is alone", async () => {
  const gate = await startGate();
  const first = await openBrowser();
  const { driver } = first;
  const waiting = () =>
    driver.executeAsyncScript<boolean>(
      `navigator.serviceWorker.getRegistration().then(found => arguments[0](Boolean(found.waiting)))`,
    );
  await driver.get(`${gate.address}/?offline=on`);
  await waitUntilKept({ driver, address: gate.address });
  await driver.navigate().refresh();
  await clickOn(driver, '//ul[@aria-label="Demos"]//li[contains(., "Belfry Runner")]//button');
  await find(driver, "[data-testid=stage]");
  const kit = await driver.getWindowHandle();
  gate.state.isNewer = true;
  await driver.executeScript("navigator.serviceWorker.getRegistration().then(found => found.update())");
  await find(driver, '//*[@aria-label="Notices"]//*[contains(., "A newer Moss Tap is here")]');
  await openAnother(driver, "tab");
  await driver.get(gate.address);
  await find(driver, 'ul[aria-label="Kits"]');
  expect(await waiting()).toBe(true);
  await driver.close();
  await driver.switchTo().window(kit);
  expect(await waiting()).toBe(true);
  await driver.navigate().refresh();
  await find(driver, "[data-testid=stage]");
  await expect.poll(waiting).toBe(false);
  gate.stop();
  await driver.quit();
  const second = await openBrowser(first.home);
  try {
    await worksAlone({ driver: second.driver, address: gate.address });
  } finally {
    await second.close();
  }
});

test("a switch in the address turns it off, and is removed from the address", async () => {
  const { driver, address } = session;
  await driver.get(`${address}/?offline=off`);
  await find(driver, 'ul[aria-label="Demos"]');
  expect(await driver.getCurrentUrl()).toBe(`${address}/`);
  expect(await driver.executeScript("return localStorage.getItem(arguments[0])", STORED_SWITCH)).toBe("off");
});
