import type { ReactNode } from "react";
import type { KitApp } from "./composeKits";
import { CheckingContext, ProofContext } from "./document/checksContext";
import { EvaluationContext, PlaybackContext } from "./document/evaluationContext";
import { StudiesContext } from "./document/studiesContext";
import { WorkbenchContext } from "./document/workbenchContext";
import { PadContext } from "./input/context";
import { JudgingContext } from "./judging/context";
import { GameLinkContext } from "./link/context";
import { TapeContext } from "./tape/hand/context";

/** Provides what the pages of a kit need to React: each owner of state has its own context. */
export function ProvideKit({ kitApp, children }: { kitApp: KitApp; children: ReactNode }) {
  return (
    <JudgingContext value={kitApp}>
      <WorkbenchContext value={kitApp.workbench}>
        <EvaluationContext value={kitApp.evaluation}>
          <PlaybackContext value={kitApp.playback}>
            <ProofContext value={kitApp.proving}>
              <CheckingContext value={kitApp.checking}>
                <StudiesContext value={kitApp.studying}>
                  <PadContext value={kitApp.pad}>
                    <GameLinkContext value={kitApp.gameLink}>
                      <TapeContext value={kitApp.tape}>{children}</TapeContext>
                    </GameLinkContext>
                  </PadContext>
                </StudiesContext>
              </CheckingContext>
            </ProofContext>
          </PlaybackContext>
        </EvaluationContext>
      </WorkbenchContext>
    </JudgingContext>
  );
}
