import { deleteAt, TICKS, writeAt, type Kit } from "#core";
import { listDrawn, stageOf, type RopesDocument } from "#stage";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { NumberStone } from "../../ui/NumberStone";
import { useEvaluation } from "../../document/evaluationContext";
import { useWorkbench } from "../../document/workbenchContext";
import { KeptMarks } from "../../ui/KeptMarks";

/** The ease of the ropes as one number, and the seed of their order. */
export function RopesEase({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const stage = stageOf(kit);
  if (stage?.kind !== "ropes") return null;
  const set = (field: string) => (value: number) =>
    workbench.editKit(`${field} ${value}`, now => writeAt(now, ["stage", field], value));
  return (
    <>
      <p className="text-sm leading-loose" data-testid="ropes-ease">
        <KeptMarks>
          Every window is{" "}
          <NumberStone
            label="ease"
            value={stage.ease ?? 1}
            least={0.1}
            most={10}
            onChange={set("ease")}
            beginStep={workbench.beginStep}
          />{" "}
          times as long as written; ropes are chosen at random, by seed{" "}
          <NumberStone
            label="seed"
            value={stage.seed}
            least={0}
            isWhole
            onChange={set("seed")}
            beginStep={workbench.beginStep}
          />
          .
        </KeptMarks>
      </p>
      <EaseOfEach kit={kit} stage={stage} />
      <Drawing kit={kit} stage={stage} />
    </>
  );
}

/** The relative ease of each prompt, and the resulting length of its window. */
function EaseOfEach({ kit, stage }: { kit: Kit; stage: RopesDocument }) {
  const workbench = useWorkbench();
  const played = useEvaluation(state => state.rules?.program.prompts);
  const prompts = kit.prompts ?? [];
  if (prompts.length === 0) return null;
  const set = (promptId: string, times: number) =>
    workbench.editKit(`ease of ${promptId} ${times}`, now => {
      const others = (stage.eases ?? []).filter(item => item.prompt !== promptId);
      const eases = times === 1 ? others : [...others, { prompt: promptId, times }];
      return eases.length === 0 ? deleteAt(now, ["stage", "eases"]) : writeAt(now, ["stage", "eases"], eases);
    });
  return (
    <ul className="text-sm leading-loose" aria-label="Ease of each prompt">
      {prompts.map(({ id, name }) => {
        const window = played?.find(prompt => prompt.id === id)?.windowTicks;
        return (
          <li key={id}>
            <b>{name || id}</b>{" "}
            <NumberStone
              label={`ease of ${name || id}`}
              value={stage.eases?.find(item => item.prompt === id)?.times ?? 1}
              least={0.1}
              most={10}
              onChange={times => set(id, times)}
              beginStep={workbench.beginStep}
            />{" "}
            times{window !== undefined && <span className="text-soft">: open for {window / TICKS}f</span>}
          </li>
        );
      })}
    </ul>
  );
}

/** Removable words of a list, with a choice of one more. */
function WordList({
  label,
  ids,
  all,
  onChange,
}: {
  label: string;
  ids: readonly string[];
  all: readonly { readonly id: string; readonly name: string }[];
  onChange: (ids: readonly string[]) => void;
}) {
  const left = all.filter(item => !ids.includes(item.id));
  return (
    <>
      {ids.map(id => {
        const name = all.find(item => item.id === id)?.name ?? id;
        return (
          <span
            key={id}
            className="mr-1 inline-flex items-center rounded-lg border border-line bg-leaf pl-2 leading-normal"
          >
            {name}
            <button
              type="button"
              aria-label={`Take ${name} out of ${label}`}
              className="px-1.5 text-soft hover:text-foxglove"
              onClick={() => onChange(ids.filter(other => other !== id))}
            >
              ×
            </button>
          </span>
        );
      })}
      {left.length > 0 && (
        <ChoiceWord
          label={`One more of ${label}`}
          value=""
          placeholder={ids.length === 0 ? "choose …" : "or …"}
          choices={left.map(item => ({ value: item.id, label: item.name }))}
          onChoose={id => onChange([...ids, id])}
        />
      )}
    </>
  );
}

/** The prompts whose button is drawn at random, the list it is drawn from, and the drawn result. */
function Drawing({ kit, stage }: { kit: Kit; stage: RopesDocument }) {
  const workbench = useWorkbench();
  const prompts = kit.prompts ?? [];
  if (prompts.length === 0)
    return (
      <p className="text-sm text-soft">No prompt yet: begin one in Shape, and it hangs on these ropes.</p>
    );
  const set = (field: "draws" | "pool") => (ids: readonly string[]) =>
    workbench.editKit(`what the ropes draw`, now =>
      ids.length === 0 ? deleteAt(now, ["stage", field]) : writeAt(now, ["stage", field], ids),
    );
  const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find(item => item.id === id)?.name ?? id;
  const drawn = listDrawn(kit, stage);
  return (
    <div className="text-sm leading-loose" data-testid="ropes-drawing">
      <p>
        By chance ask{" "}
        <WordList label="prompts drawn" ids={stage.draws ?? []} all={prompts} onChange={set("draws")} />, for
        one of{" "}
        <WordList
          label="answers drawn from"
          ids={stage.pool ?? []}
          all={kit.patterns}
          onChange={set("pool")}
        />
        .
      </p>
      {drawn.length > 0 && (
        <p className="text-soft">
          This seed draws{" "}
          {drawn
            .map(({ prompt, pattern }) => `${nameOf(kit.patterns, pattern)} for ${nameOf(prompts, prompt)}`)
            .join(", ")}
          .
        </p>
      )}
    </div>
  );
}
