import { startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { RouterContextProvider } from "react-router";
import { HydratedRouter } from "react-router/dom";
import { appContext } from "./appContext";
import { browserWorld } from "./browserWorld";
import { composeApp } from "./compose";
import { handleLeaving } from "./handleLeaving";
import { Provide } from "./Provide";
import { readOfflineSwitch, keepOffline, startNewestBuild } from "./shell/offline";

const app = composeApp(browserWorld());

function getContext(): RouterContextProvider {
  const context = new RouterContextProvider();
  context.set(appContext, app);
  return context;
}

const wanted = readOfflineSwitch();
if (await startNewestBuild()) {
  handleLeaving(app);
  startTransition(() => {
    hydrateRoot(
      document,
      <Provide app={app}>
        <HydratedRouter getContext={getContext} useTransitions={false} />
      </Provide>,
    );
  });
  keepOffline(wanted, app.notices.notify);
}
