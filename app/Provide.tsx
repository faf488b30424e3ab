import type { ReactNode } from "react";
import type { App } from "./compose";
import { DeskContext } from "./document/context";
import { PadContext } from "./input/context";
import { TapeContext } from "./tape/hand/context";
import { NoticesContext } from "./ui/noticesContext";

/** Provides the composed application to React: each room has its own context. */
export function Provide({ app, children }: { app: App; children: ReactNode }) {
  return (
    <NoticesContext value={app.notices}>
      <DeskContext value={app}>
        <PadContext value={app.pad}>
          <TapeContext value={app.tape}>{children}</TapeContext>
        </PadContext>
      </DeskContext>
    </NoticesContext>
  );
}
