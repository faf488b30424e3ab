import type { ReactNode } from "react";
import type { Kit } from "#core";
import { useStudy, useStudying, useStudyProgress } from "../document/studiesContext";
import { useDocument } from "../document/workbenchContext";
import { isOld } from "../document/studying";
import type { StudyName } from "../document/studySettings";
import { Button } from "../ui/Button";
import { useTakeSelection } from "./TakesWord";

function leftWords(leftMs: number | undefined): string {
  if (leftMs === undefined) return "";
  const seconds = Math.ceil(leftMs / 1000);
  return seconds < 90 ? `, ${seconds} s left` : `, ${Math.ceil(seconds / 60)} min left`;
}

function StudyProgress({ name, word }: { name: StudyName; word: string }) {
  const { share, leftMs } = useStudyProgress(name);
  return (
    <>
      <progress value={share} max={1} aria-label={`${word}: how far it has come`} className="w-40" />
      <span className="font-mono text-soft">
        {Math.floor(share * 100)} %{leftWords(leftMs)}
      </span>
    </>
  );
}

/**
 * The state of a study with its start button, its progress and a cancel button; marks a study of an older
 * kit.
 */
export function StudyBar({
  name,
  word,
  canBegin = true,
  of,
  onBegin,
  children,
}: {
  name: StudyName;
  /** The label of the start button. */
  word: string;
  canBegin?: boolean;
  /** The studied kit, if it is not the open one, because a value is being tried. */
  of?: Kit;
  onBegin: () => void;
  children?: ReactNode;
}) {
  const studying = useStudying();
  const study = useStudy(name);
  const open = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const checks = useDocument(state => state.checks);
  const selected = useTakeSelection().takes;
  const isWorking = study?.state === "working";
  const isOfOthers =
    study !== undefined &&
    (study.takes.length !== selected.length || study.takes.some((take, k) => take !== selected[k]));
  const old = study !== undefined && (isOfOthers || isOld(study, { kit: of ?? open, takes, checks }));
  return (
    <div
      className="my-2 flex min-h-8 flex-wrap items-center gap-x-3 gap-y-1 text-sm"
      data-testid={`study-${name}`}
      data-state={study?.state ?? "none"}
      data-old={old}
    >
      {isWorking ? (
        <>
          <StudyProgress name={name} word={word} />
          <Button onClick={() => studying.stop(name)}>Cancel</Button>
        </>
      ) : (
        <Button look={study && !old ? "plain" : "strong"} disabled={!canBegin} onClick={onBegin}>
          {study ? `${word} again` : word}
        </Button>
      )}
      {old && <span className="text-foxglove">This is of an older kit, or of other takes.</span>}
      {study?.state === "stopped" && (
        <span className="text-soft">Cancelled; what was found until then is below.</span>
      )}
      {study?.state === "failed" && (
        <span className="text-foxglove">It could not be worked out: {study.reason}</span>
      )}
      {children}
    </div>
  );
}
