import { nanoid } from "nanoid";
import { useRef, useState } from "react";
import type { Kit } from "#core";
import { useStudy, useStudySettings, useStudying } from "../document/studiesContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import type { FoundStudy } from "../document/studying";
import type { StudyResults } from "../document/studySettings";
import { useTape } from "../tape/hand/context";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { TermWord } from "../ui/Explained";
import { ChangeList } from "./ChangeList";
import { DifferenceList } from "./DifferenceList";
import { StudyBar } from "./StudyBar";
import { useTakeSelection } from "./TakesWord";
import { VersionCounts } from "./VersionCounts";
import { isSameRule, listStoryRules, type StoryRule } from "./model/storyRules";
import { firstPair, listVersions, readVersion, variantOf } from "./model/versions";
import { KeptMarks } from "../ui/KeptMarks";

/** Invites to keep a first variant. */
function FirstVariant() {
  const workbench = useWorkbench();
  return (
    <section aria-label="Variants">
      <h2 className="font-serif text-2xl">Two variants beside each other</h2>
      <p className="my-2 max-w-xl text-soft">
        Keep the rules as they are now as a <TermWord of="variant">variant</TermWord>, change them, and both
        are compared here, on the same takes.
      </p>
      <Button look="strong" onClick={() => workbench.keepVariant(nanoid(8), "Variant 1")}>
        Keep these rules as a variant
      </Button>
    </section>
  );
}

/** The changes from the first version to the second. */
function VersionChanges({ first, second }: { first: Kit | undefined; second: Kit | undefined }) {
  if (!first || !second)
    return <p className="text-foxglove">One of the two is not there any more: choose another.</p>;
  return (
    <ChangeList
      old={first}
      kit={second}
      label="What changed between them"
      none="The two are the same rules."
    />
  );
}

/** The counts of both versions rule by rule, and their differences: of all rules, or of a chosen one. */
function Comparison({
  study,
  drawn,
}: {
  study: FoundStudy<StudyResults["variants"]> | undefined;
  drawn: readonly [Kit, Kit] | undefined;
}) {
  const [kept, setChosen] = useState<StoryRule | undefined>();
  const heading = useRef<HTMLHeadingElement>(null);
  const { own, counts, stories = [] } = study?.value ?? {};
  if (!drawn || !counts) return null;
  if (!counts[0])
    return study?.state === "done" ? (
      <p className="text-foxglove">The second has faults and cannot be run.</p>
    ) : null;
  // A rule that was chosen in another comparison may not be in this one.
  const chosen = kept && listStoryRules(...drawn).find(rule => isSameRule(kept, rule));
  const picked = chosen
    ? stories.map(story => ({ ...story, events: story.events.filter(event => isSameRule(chosen, event)) }))
    : stories;
  return (
    <>
      {own && (
        <VersionCounts
          kits={drawn}
          counts={[own, counts[0]]}
          stories={stories}
          chosen={chosen}
          onChoose={rule => {
            setChosen(rule);
            heading.current?.scrollIntoView({ block: "center" });
          }}
        />
      )}
      <h3 ref={heading} className="mt-3 text-sm font-semibold">
        {chosen ? `Differences of ${chosen.name}` : "Differences of all rules"}
        {chosen && (
          <Button look="quiet" onClick={() => setChosen(undefined)}>
            List all
          </Button>
        )}
      </h3>
      <DifferenceList key={`${chosen?.kind} ${chosen?.id}`} kits={drawn} stories={picked} />
    </>
  );
}

/**
 * Two versions of the kit on the same takes: their differences, counts side by side, and each difference a
 * link to its frame.
 */
export function Variants({ kit }: { kit: Kit }) {
  const studying = useStudying();
  const { look } = useTape();
  const variants = useDocument(state => state.variants);
  const { takes } = useTakeSelection();
  const [{ pair, drawn }, set] = useStudySettings("versions");
  const study = useStudy("variants");
  const choices = listVersions(kit, variants);
  if (choices.length < 2) return <FirstVariant />;
  const { one, two } = pair ?? firstPair(choices);
  const first = readVersion(one, kit, variants);
  const second = readVersion(two, kit, variants);
  const isReady = first !== undefined && second !== undefined && first !== second && takes.length > 0;
  const overlay = variantOf(one) ?? variantOf(two);
  const begin = () => {
    if (!first || !second) return;
    set({ drawn: [first, second] });
    studying.begin("variants", {
      job: "stories",
      questions: [{ kit: first, versions: [second], slipSeconds: 0 }],
      takes,
      merge: ([stories]) => stories ?? { stories: [], counts: [], own: undefined },
    });
  };
  return (
    <section aria-label="Variants">
      <h2 className="font-serif text-2xl">Two variants beside each other</h2>
      <p className="my-1 font-serif text-lg leading-[1.9]">
        <KeptMarks>
          Hold{" "}
          <ChoiceWord
            label="one version"
            value={one}
            choices={choices}
            onChoose={value => set({ pair: { one: value, two } })}
          />{" "}
          against{" "}
          <ChoiceWord
            label="the other version"
            value={two}
            choices={choices}
            onChoose={value => set({ pair: { one, two: value } })}
          />
          .
        </KeptMarks>
      </p>
      <VersionChanges first={first} second={second} />
      <StudyBar name="variants" word="Compare" canBegin={isReady} onBegin={begin}>
        {overlay !== undefined && (
          <Button look="quiet" onClick={() => look.setState({ laidOver: overlay })}>
            Lay the variant over tape and stage
          </Button>
        )}
        {study && (
          <span className="text-soft">
            n = {study.takes.length} {study.takes.length === 1 ? "take" : "takes"}
          </span>
        )}
      </StudyBar>
      <Comparison study={study} drawn={drawn} />
    </section>
  );
}
