import type { ReactNode } from "react";
import type { App } from "./compose";
import { CheckingContext, ProofContext } from "./document/checksContext";
import { EvaluationContext, PlaybackContext } from "./document/evaluationContext";
import { StudiesContext } from "./document/studiesContext";
import { WorkbenchContext } from "./document/workbenchContext";
import { PadContext } from "./input/context";
import { GameLinkContext } from "./link/context";
import { JudgingContext } from "./judging/context";
import { StoredContext } from "./storage/context";
import { TapeContext } from "./tape/hand/context";
import { NoticesContext } from "./ui/noticesContext";

/** Provides the composed application to React: each owner of state has its own context. */
export function Provide({ app, children }: { app: App; children: ReactNode }) {
  return (
    <NoticesContext value={app.notices}>
      <StoredContext value={app}>
        <JudgingContext value={app}>
          <WorkbenchContext value={app.workbench}>
            <EvaluationContext value={app.evaluation}>
              <PlaybackContext value={app.playback}>
                <ProofContext value={app.proving}>
                  <CheckingContext value={app.checking}>
                    <StudiesContext value={app.studying}>
                      <PadContext value={app.pad}>
                        <GameLinkContext value={app.gameLink}>
                          <TapeContext value={app.tape}>{children}</TapeContext>
                        </GameLinkContext>
                      </PadContext>
                    </StudiesContext>
                  </CheckingContext>
                </ProofContext>
              </PlaybackContext>
            </EvaluationContext>
          </WorkbenchContext>
        </JudgingContext>
      </StoredContext>
    </NoticesContext>
  );
}
