import { useStore } from "zustand";
import { useShallow } from "zustand/shallow";
import { createOwnerContext } from "../ui/ownerContext";
import { foundOf, type FoundStudy, type Study, type Studying } from "./studying";
import type { StudyName, StudyResults, StudySettings } from "./studySettings";

/** The studies of the open kit. */
export const [StudiesContext, useStudying] = createOwnerContext<Studying>("studying");

/**
 * Returns a study of the open kit by its name; undefined until it is started. Its progress is left out, so that a view does
 * not render each time that it moves.
 */
export function useStudy<N extends StudyName>(name: N): FoundStudy<StudyResults[N]> | undefined {
  return useStore(
    useStudying(),
    useShallow(studies => foundOf(studies[name] as Study<StudyResults[N]> | undefined)),
  );
}

/** Returns how far a study has come: its share, 0 to 1, and the time left. */
export function useStudyProgress(name: StudyName): Pick<Study, "share" | "leftMs"> {
  return useStore(
    useStudying(),
    useShallow(studies => ({ share: studies[name]?.share ?? 0, leftMs: studies[name]?.leftMs })),
  );
}

/** Returns the settings of a study, and a setter that changes some of them. */
export function useStudySettings<N extends keyof StudySettings>(
  name: N,
): readonly [StudySettings[N], (change: Partial<StudySettings[N]>) => void] {
  const { settings } = useStudying();
  const own = useStore(settings, all => all[name]);
  return [own, change => settings.setState(all => ({ [name]: { ...all[name], ...change } }))];
}
