import { Flap } from "../ui/Flap";
import { memo, useState } from "react";
import { useSearchParams } from "react-router";
import type { Kit } from "#core";
import { addPlain, applyStarter, patternAbout, STARTERS } from "../edits/starters/starters";
import { ChoiceWord } from "../ui/ChoiceWord";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { KeptMarks } from "../ui/KeptMarks";

/** The form of a new rule: its purpose in designers' words, and a control; it starts with working numbers. */
export const NewRule = memo(function NewRule() {
  const workbench = useWorkbench();
  const controls = useDocument(state => state.kit?.controls);
  const hasPattern = useDocument(state => (state.kit?.patterns.length ?? 0) > 0);
  const [chosen, setChosen] = useState<string | undefined>();
  const [search, setSearch] = useSearchParams();
  const openKey = search.get("rule");
  const about = useDocument(({ kit }) => {
    const pattern = kit && patternAbout(kit, openKey);
    return pattern && "control" in pattern ? pattern.control : undefined;
  });
  if (!controls) return null;
  const control =
    controls.find(item => item.id === chosen) ?? controls.find(item => item.id === about) ?? controls[0];
  if (!control)
    return <p className="px-5 text-sm text-soft">Add a control in Wire first: a rule listens to one.</p>;
  const start = (words: string, make: (kit: Kit) => ReturnType<typeof applyStarter>, close: () => void) => {
    const { kit } = workbench.getState();
    if (!kit) return;
    const made = make(kit);
    workbench.editKit(`added: ${words}`, () => made.kit);
    setChosen(undefined);
    setSearch(now => {
      now.set("rule", made.opens);
      return now;
    });
    close();
  };
  return (
    <Flap
      className="px-5 narrow:px-2"
      word="New rule"
      wordLook="w-full rounded-stone border-2 border-moss bg-paper px-4 py-1.5 text-sm font-semibold text-moss hover:bg-leaf"
      anchor={{ to: "right start", gap: 12 }}
      panelLook="max-h-[86vh] w-[620px] p-4"
    >
      {close => (
        <>
          <p className="mb-2 font-serif text-lg">
            <KeptMarks>
              On{" "}
              <ChoiceWord
                label="Control of the new rule"
                value={control.id}
                choices={controls.map(item => ({ value: item.id, label: item.name }))}
                onChoose={setChosen}
              />
              , it shall …
            </KeptMarks>
          </p>
          <ul className="grid grid-cols-2 gap-1 narrow:grid-cols-1">
            {STARTERS.map(starter => (
              <li key={starter.id}>
                <button
                  type="button"
                  className="flex h-full w-full flex-col items-start rounded-xl px-3 py-1.5 text-left hover:bg-sand focus-visible:bg-sand"
                  onClick={() => start(starter.words, kit => applyStarter(kit, starter, control.id), close)}
                >
                  <b>{starter.words}</b>
                  <span className="block text-soft">{starter.line}</span>
                </button>
              </li>
            ))}
            <li>
              <button
                type="button"
                className="flex h-full w-full flex-col items-start rounded-xl px-3 py-1.5 text-left hover:bg-sand"
                onClick={() => start("a gate", kit => addPlain(kit, "gate"), close)}
              >
                <b>A gate</b>
                <span className="block text-soft">
                  a condition that moves can need: open or closed on each frame
                </span>
              </button>
            </li>
            <li>
              <button
                type="button"
                disabled={!hasPattern}
                className="flex h-full w-full flex-col items-start rounded-xl px-3 py-1.5 text-left hover:bg-sand disabled:opacity-45"
                onClick={() => start("a move", kit => addPlain(kit, "move", openKey), close)}
              >
                <b>A move</b>
                <span className="block text-soft">what the character does when a pattern fires</span>
              </button>
            </li>
          </ul>
        </>
      )}
    </Flap>
  );
});
