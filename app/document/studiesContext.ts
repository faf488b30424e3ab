import { useStore } from "zustand";
import { createOwnerContext } from "../ui/ownerContext";
import type { Studies, Studying } from "./studying";
import type { StudyName, StudySettings } from "./studySettings";

/** The studies of the open kit. */
export const [StudiesContext, useStudying] = createOwnerContext<Studying>("studying");

/** Returns a study of the open kit by its name; undefined until it is started. */
export function useStudy<N extends StudyName>(name: N): Studies[N] {
  return useStore(useStudying(), studies => studies[name]);
}

/** Returns the settings of a study, and a setter that changes some of them. */
export function useStudySettings<N extends keyof StudySettings>(
  name: N,
): readonly [StudySettings[N], (change: Partial<StudySettings[N]>) => void] {
  const { settings } = useStudying();
  const own = useStore(settings, all => all[name]);
  return [own, change => settings.setState(all => ({ [name]: { ...all[name], ...change } }))];
}
