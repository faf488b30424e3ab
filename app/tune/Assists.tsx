import { useState } from "react";
import { applyAssist, traitsOf, type Assist, type Kit } from "#core";
import { addAssist, ASSIST_STARTERS, changeAssist, removeAssist } from "../edits/assistEdits";
import { useStudySettings } from "../document/studiesContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { PRESENT_VERSION } from "../document/studySettings";
import { useTakeAway } from "../document/useTakeAway";
import { Button } from "../ui/Button";
import { ChoiceWord, type Choice } from "../ui/ChoiceWord";
import { TermWord } from "../ui/Explained";
import { NumberStone } from "../ui/NumberStone";
import { TextStone } from "../ui/TextStone";
import { ChangeList } from "./ChangeList";
import { assistVersion } from "./model/versions";
import { OneHand } from "./OneHand";
import { KeptMarks } from "../ui/KeptMarks";

const YES_NO = [
  { value: "no", label: "keeping it down" },
  { value: "yes", label: "one press, and another to end it" },
];
const MASH = [
  { value: "no", label: "mashing" },
  { value: "yes", label: "holding as long" },
];

/** Returns an assist without one of its fields. */
function without<K extends keyof Assist>(assist: Assist, key: K): Assist {
  const { [key]: _gone, ...rest } = assist;
  return rest as Assist;
}

/** Returns the action that changes an open assist. */
function useChange(assist: Assist) {
  const workbench = useWorkbench();
  return (what: string, make: (before: Assist) => Assist) =>
    workbench.editKit(`${assist.name}: ${what}`, now => changeAssist(now, assist.id, make));
}

/** A percentage of an assist: 100 to 1000, stored only if it is not 100. */
function Percent({ assist, field }: { assist: Assist; field: "windows" | "gaps" }) {
  const workbench = useWorkbench();
  const change = useChange(assist);
  return (
    <NumberStone
      label={field}
      value={assist[field] ?? 100}
      least={100}
      most={1000}
      isWhole
      beginStep={workbench.beginStep}
      onChange={value =>
        change(field, before => (value === 100 ? without(before, field) : { ...before, [field]: value }))
      }
    />
  );
}

/** A switch of an assist as words. */
function Switch({
  assist,
  field,
  label,
  choices,
}: {
  assist: Assist;
  field: "toggles" | "mashes";
  label: string;
  choices: readonly Choice[];
}) {
  const change = useChange(assist);
  return (
    <ChoiceWord
      label={label}
      value={assist[field] ? "yes" : "no"}
      choices={choices}
      onChoose={value =>
        change(field, before => (value === "yes" ? { ...before, [field]: true } : without(before, field)))
      }
    />
  );
}

/** The keys an assist is played on. */
function LayoutWord({ assist }: { assist: Assist }) {
  const layouts = useDocument(state => state.layouts);
  const change = useChange(assist);
  return (
    <ChoiceWord
      label="layout"
      value={assist.layout ?? ""}
      placeholder="a layout that is not here"
      choices={[
        { value: "", label: "the usual keys" },
        ...layouts.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChoose={value =>
        change("layout", before => (value ? { ...before, layout: value } : without(before, "layout")))
      }
    />
  );
}

/** An assist as an editable sentence. */
function AssistSentence({ kit, assist }: { kit: Kit; assist: Assist }) {
  const change = useChange(assist);
  const hasMash = kit.patterns.some(({ kind }) => traitsOf(kind).toHold);
  const hasTaps = kit.patterns.some(({ kind }) => traitsOf(kind).tapGapField !== undefined);
  return (
    <p className="font-serif text-lg leading-[1.9]">
      <KeptMarks>
        <TextStone
          label="Name of this assist"
          value={assist.name}
          isStrong
          onChange={name => change("name", before => ({ ...before, name }))}
        />
        : windows <Percent assist={assist} field="windows" /> % as long
        {hasTaps && (
          <>
            , gaps between taps <Percent assist={assist} field="gaps" /> %
          </>
        )}
        ; to hold is <Switch assist={assist} field="toggles" label="holds" choices={YES_NO} />
        {hasMash && (
          <>
            ; to mash is <Switch assist={assist} field="mashes" label="mashes" choices={MASH} />
          </>
        )}
        ; played on <LayoutWord assist={assist} />.
      </KeptMarks>
    </p>
  );
}

/** The rules that an assist changes, once they are asked for. */
function AssistChanges({ kit, assist }: { kit: Kit; assist: Assist }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="text-sm" onToggle={event => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer py-1">What it changes</summary>
      {isOpen && (
        <ChangeList
          old={kit}
          kit={applyAssist(kit, assist)}
          label={`What ${assist.name} changes`}
          none="No rule of this kit."
        />
      )}
    </details>
  );
}

function AssistLine({
  kit,
  assist,
  onHands,
  onTakes,
}: {
  kit: Kit;
  assist: Assist;
  onHands: () => void;
  onTakes: () => void;
}) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  return (
    <li className="border-t border-line py-2" data-testid={`assist-${assist.id}`}>
      <AssistSentence kit={kit} assist={assist} />
      <p className="-ml-2 text-sm">
        <Button look="quiet" onClick={onTakes}>
          Compare it on the takes
        </Button>
        <Button look="quiet" onClick={onHands}>
          Compare it by the same hands
        </Button>
        <Button
          look="quiet"
          onClick={() =>
            takeAway(
              `${assist.name} is deleted.`,
              workbench.editKit(`deleted ${assist.name}`, now => removeAssist(now, assist.id)),
            )
          }
        >
          Delete this assist
        </Button>
      </p>
      <AssistChanges kit={kit} assist={assist} />
    </li>
  );
}

/**
 * Variations of the kit for players who need more time or less force, stored with it and activated in Play.
 */
export function Assists({
  kit,
  onHands,
  onVariants,
}: {
  kit: Kit;
  /** Called when an assist is chosen to be compared by simulated hands, or on the takes as recorded. */
  onHands: () => void;
  onVariants: () => void;
}) {
  const workbench = useWorkbench();
  const [{ one }, setHands] = useStudySettings("hands");
  const [, setVersions] = useStudySettings("versions");
  const assists = kit.assists ?? [];
  return (
    <section aria-label="Assists">
      <h2 className="font-serif text-2xl">For players who need more time, or less force</h2>
      <p className="max-w-2xl text-sm text-soft">
        An <TermWord of="assist">assist</TermWord> is an easier version of this kit, made by rule: it follows
        every later change. It is switched on in Play beside the stage, judged by the same checks in Prove,
        and is exported with the kit.
      </p>
      <ul>
        {assists.map(assist => (
          <AssistLine
            key={assist.id}
            kit={kit}
            assist={assist}
            onHands={() => {
              setHands({
                one: { ...one, version: PRESENT_VERSION },
                two: { ...one, version: assistVersion(assist.id) },
              });
              onHands();
            }}
            onTakes={() => {
              setVersions({ pair: { one: PRESENT_VERSION, two: assistVersion(assist.id) } });
              onVariants();
            }}
          />
        ))}
      </ul>
      <p className="mt-3 text-sm font-semibold">{assists.length === 0 ? "Begin one:" : "One more:"}</p>
      <ul className="flex flex-wrap gap-2">
        {ASSIST_STARTERS.map(starter => (
          <li key={starter.name}>
            <Button
              onClick={() => workbench.editKit(`assist ${starter.name}`, now => addAssist(now, starter))}
            >
              <b>{starter.name}</b> <span className="text-soft">{starter.line}</span>
            </Button>
          </li>
        ))}
        <li>
          <OneHand kit={kit} />
        </li>
      </ul>
    </section>
  );
}
