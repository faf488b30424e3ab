import { nanoid } from "nanoid";
import { formatMoveCounts, listChanges, nameOf, type Kit, type RuleCounts } from "#core";
import { useStudy, useStudySettings, useStudying } from "../document/studiesContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import type { FoundStudy } from "../document/studying";
import { PRESENT_VERSION, type StudyResults } from "../document/studySettings";
import { useTape } from "../tape/hand/context";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { TermWord } from "../ui/Explained";
import { formatChange } from "../parts/model/changeWords";
import { DifferenceList } from "./DifferenceList";
import { StudyBar } from "./StudyBar";
import { useTakeSelection } from "./TakesWord";
import { listVersions, readVersion, variantOf } from "./model/versions";
import { KeptMarks } from "../ui/KeptMarks";

const MAX_CHANGES = 30;

function Counts({ one, two, kits }: { one: RuleCounts; two: RuleCounts; kits: readonly [Kit, Kit] }) {
  const ids = [...new Set(kits.flatMap(kit => (kit.moves ?? []).map(({ id }) => id)))];
  const wordsOf = (kit: Kit, counts: RuleCounts, id: string) => {
    const index = kit.moves?.findIndex(move => move.id === id) ?? -1;
    return index < 0
      ? "is not there"
      : formatMoveCounts(counts.moves[index]!, move => kit.moves![move]!.name || kit.moves![move]!.id);
  };
  return (
    <table className="mt-1 text-sm" data-testid="version-counts">
      <tbody>
        {ids.map(id => {
          const [a, b] = [wordsOf(kits[0], one, id), wordsOf(kits[1], two, id)];
          const name = nameOf(kits[0], "moves", id);
          return (
            <tr key={id} className="border-t border-line align-top">
              <th scope="row" className="pr-4 text-left font-normal">
                {name === id ? nameOf(kits[1], "moves", id) : name}
              </th>
              <td className="pr-4">{a}</td>
              <td className={a === b ? "text-soft" : "font-semibold"}>{a === b ? "the same" : b}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

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
function ChangeList({ first, second }: { first: Kit | undefined; second: Kit | undefined }) {
  if (!first || !second)
    return <p className="text-foxglove">One of the two is not there any more: choose another.</p>;
  const changes = listChanges(first, second).filter(({ path }) => path[0] !== "name" && path[0] !== "id");
  if (changes.length === 0) return <p className="text-soft">The two are the same rules.</p>;
  return (
    <ul className="text-sm" aria-label="What changed between them">
      {changes.slice(0, MAX_CHANGES).map(change => (
        <li key={change.path.join()}>{formatChange(first, second, change)}</li>
      ))}
      {changes.length > MAX_CHANGES && <li className="text-soft">and {changes.length - MAX_CHANGES} more</li>}
    </ul>
  );
}

/** The counts of both versions, and their differences take by take. */
function Comparison({
  study,
  drawn,
}: {
  study: FoundStudy<StudyResults["variants"]> | undefined;
  drawn: readonly [Kit, Kit] | undefined;
}) {
  const { own, counts, stories } = study?.value ?? {};
  if (!drawn || !counts) return null;
  if (!counts[0])
    return study?.state === "done" ? (
      <p className="text-foxglove">The second has faults and cannot be run.</p>
    ) : null;
  return (
    <>
      {own && <Counts one={own} two={counts[0]} kits={drawn} />}
      <div className="mt-2">
        <DifferenceList kit={drawn[0]} stories={stories ?? []} />
      </div>
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
  const one = pair?.one ?? choices[1]!.value;
  const two = pair?.two ?? PRESENT_VERSION;
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
      <ChangeList first={first} second={second} />
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
