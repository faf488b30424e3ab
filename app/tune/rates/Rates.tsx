import type { Kit } from "#core";
import { useStudy, useStudySettings, useStudying } from "../../document/studiesContext";
import { useDocument } from "../../document/workbenchContext";
import type { VersionStory } from "../../judging/jobs/stories";
import { DifferenceList, TwoStories } from "../DifferenceList";
import { isSameRule, listStoryRules, type StoryRule } from "../model/storyRules";
import { StudyBar } from "../StudyBar";
import { useTakeSelection } from "../TakesWord";
import { RateChoice } from "./RateChoice";
import { RateTable } from "./RateTable";
import { Roundings } from "./Roundings";

/** The differences of the chosen rule at the chosen rate, take by take. */
function ChosenDifferences({
  kit,
  rules,
  stories,
}: {
  kit: Kit;
  rules: readonly StoryRule[];
  stories: readonly VersionStory[];
}) {
  const takes = useDocument(state => state.takes);
  const [{ drawn, chosen }] = useStudySettings("rates");
  if (!chosen) return null;
  const picked = stories
    .filter(({ version }) => drawn[version] === chosen.rate)
    .map(story => ({ ...story, events: story.events.filter(event => isSameRule(chosen, event)) }));
  if (picked.length === 0) return null;
  return (
    <div className="mt-2" data-testid="rate-differences">
      <h3 className="text-sm font-semibold">
        {rules.find(rule => isSameRule(chosen, rule))?.name} at {chosen.rate} frames a second, against{" "}
        {kit.rate}
      </h3>
      {picked
        .filter(({ events }) => events.some(({ what }) => what !== "same"))
        .map(({ take: id, events }) => {
          const take = takes.find(item => item.id === id);
          return take && <TwoStories key={id} events={events} seconds={take.frames / take.rate} />;
        })}
      <DifferenceList key={`${chosen.rate} ${chosen.kind} ${chosen.id}`} kits={[kit, kit]} stories={picked} />
    </div>
  );
}

/** The results of the rules at other rates, rule by rule, and the rounding of every length in ms. */
export function Rates({ kit }: { kit: Kit }) {
  const studying = useStudying();
  const { takes } = useTakeSelection();
  const [{ rates }, set] = useStudySettings("rates");
  const study = useStudy("rates");
  const begin = () => {
    set({ drawn: rates });
    studying.begin("rates", {
      job: "stories",
      questions: [{ kit, versions: rates.map(rate => ({ ...kit, rate })) }],
      takes,
      merge: ([stories]) => stories ?? { stories: [], counts: [], own: undefined },
    });
  };
  const about = study?.kit ?? kit;
  const rules = listStoryRules(about);
  const stories = study?.value?.stories ?? [];
  return (
    <section aria-label="Rates">
      <h2 className="font-serif text-2xl">At other rates</h2>
      <p className="text-sm text-soft">
        The same takes judged at other frame rates, and compared event by event in time. Lengths in frames are
        frames of that rate; those in ms are rounded again.
      </p>
      <RateChoice />
      <StudyBar
        name="rates"
        word="Judge at these rates"
        canBegin={takes.length > 0 && rates.length > 0}
        onBegin={begin}
      >
        {study && (
          <span className="text-soft">
            n = {study.takes.length} {study.takes.length === 1 ? "take" : "takes"}
          </span>
        )}
      </StudyBar>
      <RateTable rules={rules} stories={stories} />
      <ChosenDifferences kit={about} rules={rules} stories={stories} />
      <Roundings kit={kit} rates={rates} />
    </section>
  );
}
