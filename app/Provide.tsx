import type { ReactNode } from "react";
import type { App } from "./compose";
import { WorkersContext } from "./judging/workers";
import { StoredContext } from "./storage/context";
import { NoticesContext } from "./ui/noticesContext";

/** Provides what every page needs to React: each owner of state has its own context. */
export function Provide({ app, children }: { app: App; children: ReactNode }) {
  return (
    <NoticesContext value={app.notices}>
      <StoredContext value={app}>
        <WorkersContext value={app}>{children}</WorkersContext>
      </StoredContext>
    </NoticesContext>
  );
}
