import { useSearchParams } from "react-router";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument } from "../document/workbenchContext";
import { NextStep } from "../parts/NextStep";
import { Assists } from "./Assists";
import { FeelReport } from "./FeelReport";
import { Goal } from "./goal/Goal";
import { Hands } from "./hands/Hands";
import { Overlaps } from "./Overlaps";
import { Rates } from "./rates/Rates";
import { Sweep } from "./sweep/Sweep";
import { GroupsWord, TakesWord } from "./TakesWord";
import { Variants } from "./Variants";

/** The studies, each by the question it answers. */
const STUDIES = [
  { id: "feel", word: "Feel", asks: "How do the takes feel?" },
  { id: "sweep", word: "Sweep", asks: "What does a number do?" },
  { id: "hands", word: "Hands", asks: "Who can play it?" },
  { id: "goal", word: "Goal", asks: "Which numbers are enough?" },
  { id: "rates", word: "Rates", asks: "What of other frame rates?" },
  { id: "overlaps", word: "Overlaps", asks: "What gets in the way of what?" },
  { id: "variants", word: "Variants", asks: "Which variant is better?" },
  { id: "assists", word: "Assists", asks: "Who needs more time?" },
] as const;

type StudyId = (typeof STUDIES)[number]["id"];

/** Tune: numbers chosen by evidence. One study at a time, over chosen takes. */
export function TuneView() {
  const kit = useDocument(state => state.kit);
  const rules = useEvaluation(state => state.rules);
  const isSound = useEvaluation(state => state.isSound);
  const [search, setSearch] = useSearchParams();
  const study = STUDIES.find(({ id }) => id === search.get("study"))?.id ?? "feel";
  const open = (id: StudyId) =>
    setSearch(
      now => {
        now.set("study", id);
        return now;
      },
      { replace: true },
    );
  if (!kit) return null;
  if (!rules || !isSound)
    return (
      <p className="p-7 text-foxglove">
        The kit has faults, which Shape lists. Numbers are studied once it has none.
      </p>
    );
  const { kit: sound } = rules;
  const isOfGroups = study === "feel" || study === "sweep" || study === "hands" || study === "goal";
  const isOfTakes = study !== "overlaps" && study !== "assists";
  return (
    <div className="grid min-h-0 grow grid-cols-[210px_minmax(0,1fr)] narrow:block narrow:overflow-auto">
      <nav
        aria-label="Studies"
        className="min-h-0 overflow-auto border-r border-line py-2 narrow:flex narrow:border-r-0 narrow:border-b narrow:py-0"
      >
        {STUDIES.map(({ id, word, asks }) => (
          <button
            key={id}
            type="button"
            aria-current={id === study ? "page" : undefined}
            className={`block w-full border-l-4 px-4 py-1.5 text-left narrow:w-auto narrow:border-b-4 narrow:border-l-0 narrow:px-3 ${id === study ? "border-moss bg-leaf" : "border-transparent hover:bg-sand"}`}
            onClick={() => open(id)}
          >
            <span className={id === study ? "font-semibold" : ""}>{word}</span>
            <span className="block text-xs text-soft narrow:hidden">{asks}</span>
          </button>
        ))}
      </nav>
      <div className="min-h-0 overflow-auto px-6 py-3 narrow:overflow-x-auto narrow:px-4" data-testid="tune">
        <h1 className="sr-only">Tune {kit.name}</h1>
        {isOfTakes && (
          <p className="float-right text-sm narrow:float-none">
            <TakesWord /> {isOfGroups && <GroupsWord />}
          </p>
        )}
        <NextStep view="tune" isDone={search.has("study")}>
          Choose a question at the left; every figure leads to the frames it came from.
        </NextStep>
        {study === "feel" && <FeelReport kit={sound} />}
        {study === "sweep" && <Sweep kit={sound} />}
        {study === "hands" && <Hands kit={sound} />}
        {study === "goal" && <Goal kit={sound} />}
        {study === "rates" && <Rates kit={sound} />}
        {study === "overlaps" && <Overlaps kit={sound} />}
        {study === "variants" && <Variants kit={sound} />}
        {study === "assists" && (
          <Assists kit={kit} onHands={() => open("hands")} onVariants={() => open("variants")} />
        )}
      </div>
    </div>
  );
}
