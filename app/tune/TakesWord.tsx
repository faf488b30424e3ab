import { countWords, type Take } from "#core";
import type { TakeGroups, TakeSelection } from "../document/studySettings";
import { useStudySettings } from "../document/studiesContext";
import { useDocument } from "../document/workbenchContext";
import { ChoiceWord } from "../ui/ChoiceWord";
import { Flap } from "../ui/Flap";
import { listLabels, selectTakes, TAKE_LABELS } from "./model/takeSelection";

/** Returns the takes of all studies, and their setter. */
export function useTakeSelection(): {
  readonly takes: readonly Take[];
  readonly asked: TakeSelection;
  readonly set: (asked: TakeSelection) => void;
} {
  const all = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
  const [{ selection }, set] = useStudySettings("takes");
  return {
    takes: selectTakes(selection, all, openId),
    asked: selection,
    set: asked => set({ selection: asked }),
  };
}

/** The takes of the studies as an editable word, "over all 4 takes", with a list for single ones. */
export function TakesWord() {
  const all = useDocument(state => state.takes);
  const { takes, asked, set } = useTakeSelection();
  const choices = [
    { value: "all", label: all.length === 1 ? "the only take" : `all ${all.length} takes` },
    { value: "open", label: "the open take" },
    ...TAKE_LABELS.flatMap(kind =>
      listLabels(all, kind).map(name => ({ value: `${kind} ${name}`, label: `takes of ${kind} ${name}` })),
    ),
    ...(asked.kind === "chosen" ? [{ value: "chosen", label: `${takes.length} chosen takes` }] : []),
  ];
  const choose = (value: string) => {
    if (value === "all" || value === "open") set({ kind: value });
    for (const kind of TAKE_LABELS)
      if (value.startsWith(`${kind} `)) set({ kind, name: value.slice(kind.length + 1) });
  };
  const ids = takes.map(({ id }) => id);
  return (
    <span>
      over{" "}
      <ChoiceWord
        label="takes"
        value={"name" in asked ? `${asked.kind} ${asked.name}` : asked.kind}
        choices={choices}
        onChoose={choose}
      />{" "}
      <Flap
        word="choose…"
        wordLook="px-1 text-moss underline-offset-4 hover:underline"
        label="Choose single takes"
        anchor="bottom start"
        panelLook="max-h-72 p-2"
        className="inline-block"
      >
        {() => (
          <ul aria-label="Takes to study">
            {all.map(take => (
              <li key={take.id}>
                <label className="flex max-w-72 items-center gap-2 px-2 py-1">
                  <input
                    type="checkbox"
                    checked={ids.includes(take.id)}
                    onChange={event =>
                      set({
                        kind: "chosen",
                        ids: event.target.checked ? [...ids, take.id] : ids.filter(id => id !== take.id),
                      })
                    }
                  />
                  <span className="truncate">{take.name || take.id}</span>
                </label>
              </li>
            ))}
          </ul>
        )}
      </Flap>
    </span>
  );
}

const GROUPS: readonly { readonly value: TakeGroups; readonly label: string; readonly hint: string }[] = [
  { value: "none", label: "together", hint: "one picture of all takes" },
  { value: "player", label: "by player", hint: "a column for each player that a take names" },
  { value: "device", label: "by device", hint: "a column for each pad or keyboard" },
  { value: "session", label: "by session", hint: "a column for each day or session" },
  { value: "take", label: "take by take", hint: "a column for each take" },
];

/** The word for the groups of takes: together, or side by side by a label. */
export function GroupsWord() {
  const [{ groups }, set] = useStudySettings("takes");
  return (
    <span>
      shown{" "}
      <ChoiceWord
        label="side by side"
        value={groups}
        choices={GROUPS}
        onChoose={value => set({ groups: value as TakeGroups })}
      />
    </span>
  );
}

/** The number of groups that have no column, if there are any. */
export function LeftOut({ groups }: { groups: number }) {
  if (groups === 0) return null;
  return (
    <span className="text-foxglove">
      {countWords(groups, "group is", "groups are")} left out: choose fewer takes.
    </span>
  );
}
