import { type Assist, type Character, CHARACTERS, type Kit, traitsOf } from "#core";
import { addAssist, ASSIST_STARTERS, changeAssist, removeAssist } from "../edits/assistEdits";
import { useDesk, useDocument, useSetting } from "../document/context";
import { useTakeAway } from "../document/useTakeAway";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { NumberStone } from "../ui/NumberStone";
import { TextStone } from "../ui/TextStone";
import { OneHand } from "./OneHand";
import { NOW } from "./model/versions";

const YES_NO = [
  { value: "no", label: "keeping it down" },
  { value: "yes", label: "one press, and one more to let go" },
];
const MASH = [
  { value: "no", label: "mashing" },
  { value: "yes", label: "holding as long" },
];

function AssistLine({ kit, assist, onCompare }: { kit: Kit; assist: Assist; onCompare: () => void }) {
  const { workbench } = useDesk();
  const layouts = useDocument(state => state.layouts);
  const takeAway = useTakeAway();
  const change = (what: string, make: (was: Assist) => Assist) =>
    workbench.editKit(`${assist.name}: ${what}`, now => changeAssist(now, assist.id, make));
  const without = <K extends keyof Assist>(was: Assist, key: K): Assist => {
    const { [key]: _gone, ...rest } = was;
    return rest as Assist;
  };
  const flag = (key: "toggles" | "mashes", value: string) =>
    change(key, was => (value === "yes" ? { ...was, [key]: true } : without(was, key)));
  const number = (key: "windows" | "gaps", value: number) =>
    change(key, was => (value === 100 ? without(was, key) : { ...was, [key]: value }));
  const hasMash = kit.patterns.some(({ kind }) => traitsOf(kind).toHold);
  const hasTaps = kit.patterns.some(({ kind }) => traitsOf(kind).tapGapField !== undefined);
  return (
    <li className="border-t border-line py-2" data-testid={`assist-${assist.id}`}>
      <p className="font-serif text-lg leading-[1.9]">
        <TextStone
          label="Name of this assist"
          value={assist.name}
          isStrong
          onChange={name => change("name", was => ({ ...was, name }))}
        />
        : windows{" "}
        <NumberStone
          label="windows"
          value={assist.windows ?? 100}
          least={100}
          most={1000}
          isWhole
          beginStep={workbench.beginStep}
          onChange={value => number("windows", value)}
        />{" "}
        % as long
        {hasTaps && (
          <>
            , gaps between taps{" "}
            <NumberStone
              label="gaps"
              value={assist.gaps ?? 100}
              least={100}
              most={1000}
              isWhole
              beginStep={workbench.beginStep}
              onChange={value => number("gaps", value)}
            />{" "}
            %
          </>
        )}
        ; to hold is{" "}
        <ChoiceWord
          label="holds"
          value={assist.toggles ? "yes" : "no"}
          choices={YES_NO}
          onChoose={value => flag("toggles", value)}
        />
        {hasMash && (
          <>
            ; to mash is{" "}
            <ChoiceWord
              label="mashes"
              value={assist.mashes ? "yes" : "no"}
              choices={MASH}
              onChoose={value => flag("mashes", value)}
            />
          </>
        )}
        ; played on{" "}
        <ChoiceWord
          label="layout"
          value={assist.layout ?? ""}
          placeholder="a layout that is not here"
          choices={[
            { value: "", label: "the usual keys" },
            ...layouts.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChoose={value =>
            change("layout", was => (value ? { ...was, layout: value } : without(was, "layout")))
          }
        />
        .
      </p>
      <p className="-ml-2 text-sm">
        <Button look="quiet" onClick={onCompare}>
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
    </li>
  );
}

/**
 * Variations of the kit for players who need more time or less force, stored with it and activated in Play.
 */
export function Assists({ kit, onHands }: { kit: Kit; onHands: () => void }) {
  const { workbench } = useDesk();
  const [, setVersion] = useSetting("hand version", NOW);
  const [, setTwoVersion] = useSetting("hand version two", NOW);
  const [one] = useSetting<Character | undefined>("hand one", undefined);
  const [, setTwo] = useSetting<Character | undefined>("hand two", undefined);
  const assists = kit.assists ?? [];
  return (
    <section aria-label="Assists">
      <h2 className="font-serif text-2xl">For players who need more time, or less force</h2>
      <p className="max-w-2xl text-sm text-soft">
        An assist is this kit, made gentler by rule: nothing is tuned twice. It is switched on in Play beside
        the stage, held against the same checks in Prove, and leaves with the kit.
      </p>
      <ul>
        {assists.map(assist => (
          <AssistLine
            key={assist.id}
            kit={kit}
            assist={assist}
            onCompare={() => {
              setVersion(NOW);
              setTwoVersion(`assist ${assist.id}`);
              setTwo(one ?? CHARACTERS[1]!);
              onHands();
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
