import { nanoid } from "nanoid";
import {
  CHARACTERS,
  nameOf,
  playHand,
  type Character,
  type FittedCharacter,
  type HandsResult,
  type Kit,
  type PressShare,
  type Share,
} from "#core";
import { useDesk, useDocument, useSetting, useStudy } from "../document/context";
import type { SpreadPoint } from "../judging/jobs/spread";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { LineChart } from "../ui/LineChart";
import { noStep } from "../ui/noStep";
import { NumberStone } from "../ui/NumberStone";
import { CharacterLine } from "./CharacterLine";
import { FrameLink } from "./FrameLink";
import { ShareBar } from "./ShareBar";
import { StudyBar } from "./StudyBar";
import { useTakeSelection } from "./TakesWord";
import { listVersions, NOW, readVersion } from "./model/versions";

const MAX_PRESSES = 15;
const SPREADS = [0, 8, 16, 25, 33, 50, 67, 83, 100, 125, 150] as const;
const [, STEADY, NEW] = CHARACTERS;

/** Describes the rules that used a press. */
function usedFor(kit: Kit, { moves, prompts }: PressShare): string {
  return [
    ...moves.map(index => nameOf(kit, "moves", kit.moves?.[index]?.id ?? "")),
    ...prompts.map(index => nameOf(kit, "prompts", kit.prompts?.[index]?.id ?? "")),
  ].join(" and ");
}

/** The shares of one list, one or two side by side. */
function ShareRows({
  label,
  sides,
  rows,
}: {
  label: string;
  /** The column headings. */
  sides: readonly string[];
  rows: readonly {
    readonly key: string;
    readonly name: string;
    readonly shares: readonly (Share | undefined)[];
  }[];
}) {
  if (rows.length === 0) return null;
  return (
    <table className="mt-2 text-sm" aria-label={label}>
      <caption className="text-left font-semibold">{label}</caption>
      {sides.length > 1 && (
        <thead>
          <tr>
            <td />
            {sides.map((side, k) => (
              <th key={k} scope="col" className="text-left font-normal text-soft">
                {side}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map(({ key, name, shares }) => (
          <tr key={key} className="border-t border-line">
            <th scope="row" className="max-w-60 truncate pr-4 text-left font-normal">
              {name}
            </th>
            {shares.map((share, k) => (
              <td key={k} className="pr-6">
                {share ? <ShareBar share={share} /> : <span className="text-soft">–</span>}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The share in which one press is used the same way, over the spread of the character. */
function SpreadCurve({
  points,
  press,
  kit,
}: {
  points: readonly SpreadPoint[];
  press: PressShare;
  kit: Kit;
}) {
  const line = (
    label: string,
    look: "moss" | "fern",
    dash: readonly number[],
    read: (share: Share) => number,
  ) => ({
    label,
    look,
    dash,
    points: points.map(({ spreadMs, share }) => ({ x: spreadMs, y: Math.round(read(share) * 100) })),
  });
  const half = points.find(({ share }) => share.share < 0.5);
  return (
    <>
      <p className="text-sm" data-testid="spread-words">
        {half
          ? `Hands wider than about ${half.spreadMs} ms lose it more often than not.`
          : "Even the widest hands here get it more often than not."}{" "}
        <span className="text-soft">n = {points[0]?.share.n ?? 0} plays a spread.</span>
      </p>
      <LineChart
        label={`How often the press for ${usedFor(kit, press)} is used, over the spread of the hands`}
        lines={[
          line("used as it was", "moss", [], share => share.share),
          line("95 % interval", "fern", [4, 3], share => share.low),
          line("", "fern", [4, 3], share => share.high),
        ]}
        marks={[]}
        xWords={`spread of the onset, ms (1f is ${Math.round(10_000 / kit.rate) / 10} ms)`}
        yWords="plays, %"
        yMost={100}
        formatX={x => String(x)}
      />
    </>
  );
}

/** Takes repeated by simulated players: the success of each rule, press and check, with its interval. */
export function Hands({ kit }: { kit: Kit }) {
  const { studying, workbench } = useDesk();
  const variants = useDocument(state => state.variants);
  const checks = useDocument(state => state.checks);
  const all = useDocument(state => state.takes);
  const { takes } = useTakeSelection();
  const [one, setOne] = useSetting<Character>("hand one", STEADY!);
  const [two, setTwo] = useSetting<Character | undefined>("hand two", undefined);
  const [version, setVersion] = useSetting("hand version", NOW);
  const [versionTwo, setVersionTwo] = useSetting("hand version two", NOW);
  const [seed, setSeed] = useSetting("hand seed", 1);
  const [count, setCount] = useSetting("hand count", 200);
  const [fitted, setFitted] = useSetting<Character | undefined>("fitted", undefined);
  const [looked, setLooked] = useSetting<PressShare | undefined>("hand press", undefined);
  const [drawn, setDrawn] = useSetting<readonly string[]>("hands drawn", []);
  const study = useStudy<readonly (HandsResult | undefined)[]>("hands");
  const fit = useStudy<FittedCharacter | undefined>("fit");
  const spread = useStudy<readonly SpreadPoint[]>("spread");
  const known: readonly Character[] = fitted ? [...CHARACTERS, fitted] : CHARACTERS;
  const versions = listVersions(kit, variants);
  const kitOf = (value: string) => readVersion(value, kit, variants) ?? kit;
  const begin = () => {
    const ask = (character: Character, of: string) => ({
      hands: { kit: kitOf(of), character, seed, count },
      checks,
    });
    const sideOf = (character: Character, of: string) =>
      `${character.name}, ${versions.find(({ value }) => value === of)?.label ?? of}`;
    setDrawn([sideOf(one, version), ...(two ? [sideOf(two, versionTwo)] : [])]);
    studying.begin("hands", {
      job: "hands",
      questions: [ask(one, version), ...(two ? [ask(two, versionTwo)] : [])],
      takes,
      merge: results => results,
    });
  };
  const beginFit = () => {
    studying.begin("fit", { job: "fit", questions: [{ kit }], takes, merge: ([found]) => found });
  };
  const found = fit?.value;
  const takeUpFit = () => {
    if (!found) return;
    setFitted(found.character);
    setOne(found.character);
  };
  const look = (press: PressShare) => {
    const take = all.find(({ id }) => id === press.take);
    if (!take) return;
    setLooked(press);
    studying.begin("spread", {
      job: "spread",
      questions: [
        {
          hands: { kit: kitOf(version), character: one, seed, count },
          control: press.control,
          press: press.press,
          spreadsMs: SPREADS,
        },
      ],
      takes: [take],
      merge: ([points]) => points ?? [],
    });
  };
  const keepPlay = (takeId: string, ofSeed: number, character: Character) => {
    const take = all.find(({ id }) => id === takeId);
    if (!take) return;
    const name = `${take.name || take.id}, ${character.name.toLowerCase()} hand, seed ${ofSeed}`;
    const played = playHand(take, character, ofSeed);
    workbench.addTake(
      { ...played, id: nanoid(8), name: name.slice(0, 200) },
      `kept what a hand played: ${name}`,
    );
  };
  const [first, second] = study?.value ?? [];
  const about = study?.kit ?? kit;
  const sides = study && study.value && study.value.length > 1 ? [first, second] : [first];
  const byRule = (list: "moves" | "prompts") => {
    const places = [...new Set(sides.flatMap(side => (side?.[list] ?? []).map(({ index }) => index)))].sort(
      (a, b) => a - b,
    );
    return places.map(index => ({
      key: `${list} ${index}`,
      name: nameOf(about, list, about[list]?.[index]?.id ?? ""),
      shares: sides.map(side => side?.[list].find(item => item.index === index)?.share),
    }));
  };
  const checkRows = (first?.checks ?? []).map(({ check }) => ({
    key: `check ${check}`,
    name: study?.checks[check]?.name || (study?.checks[check]?.id ?? ""),
    shares: sides.map(side => side?.checks.find(item => item.check === check)?.share),
  }));
  const hardest = [...(first?.presses ?? [])]
    .sort((a, b) => a.share.share - b.share.share)
    .slice(0, MAX_PRESSES);
  return (
    <section aria-label="Hands">
      <h2 className="font-serif text-2xl">Who can play it</h2>
      <p className="my-1 max-w-[960px] font-serif leading-[2.1]" data-testid="hand-sentence">
        <CharacterLine character={one} known={known} side="" onChange={setOne} /> It plays each take{" "}
        <NumberStone
          label="plays a take"
          value={count}
          onChange={setCount}
          beginStep={() => noStep()}
          least={1}
          most={5000}
          isWhole
        />{" "}
        times from seed{" "}
        <NumberStone
          label="seed"
          value={seed}
          onChange={setSeed}
          beginStep={() => noStep()}
          least={0}
          most={1_000_000}
          isWhole
        />
        , under <ChoiceWord label="version" value={version} choices={versions} onChoose={setVersion} />.
      </p>
      {two ? (
        <p
          className="my-1 max-w-[960px] border-l-2 border-fern pl-3 font-serif leading-[2.1]"
          data-testid="hand-sentence-two"
        >
          Beside it, from the same seeds:{" "}
          <CharacterLine character={two} known={known} side="second " onChange={setTwo} /> under{" "}
          <ChoiceWord label="second version" value={versionTwo} choices={versions} onChoose={setVersionTwo} />
          .{" "}
          <Button look="quiet" onClick={() => setTwo(undefined)}>
            Take the second away
          </Button>
        </p>
      ) : (
        <Button look="quiet" className="-ml-2" onClick={() => setTwo(NEW)}>
          … beside another hand, or another version
        </Button>
      )}
      <div className="flex flex-wrap items-center gap-x-3 text-sm">
        <Button disabled={takes.length === 0 || fit?.state === "working"} onClick={beginFit}>
          Fit a hand to these takes
        </Button>
        {found && (
          <span data-testid="fitted">
            Found: onset give or take {found.character.spreadMs} ms (n = {found.onset.presses} presses in{" "}
            {found.onset.groups} like groups), length {found.character.lengthPercent} % (n ={" "}
            {found.length.presses}), fingers {found.character.fingersMs} ms (n = {found.fingers.presses}).{" "}
            <Button look="quiet" onClick={takeUpFit}>
              Play with it
            </Button>
          </span>
        )}
      </div>
      <StudyBar name="hands" word="Let them play" canBegin={takes.length > 0} onBegin={begin}>
        {first && (
          <span className="text-soft">
            n = {first.plays} plays, seeds {seed} to {seed + count - 1}; 95 % intervals (Wilson)
          </span>
        )}
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to play: record one in Play.</p>}
      <ShareRows
        label="By rule: how often a press is used as it was"
        sides={drawn}
        rows={[...byRule("moves"), ...byRule("prompts")]}
      />
      <ShareRows label="By check: how often it holds" sides={drawn} rows={checkRows} />
      {hardest.length > 0 && (
        <table className="mt-2 text-sm" aria-label="Hardest presses" data-testid="hardest">
          <caption className="text-left font-semibold">Hardest presses</caption>
          <tbody>
            {hardest.map(press => (
              <tr key={`${press.take} ${press.control} ${press.press}`} className="border-t border-line">
                <td className="max-w-80 pr-4">
                  <FrameLink take={press.take} frame={press.frame} words={usedFor(about, press)} />
                </td>
                <td className="pr-4">
                  <ShareBar share={press.share} />
                </td>
                <td className="whitespace-nowrap">
                  <Button
                    look="quiet"
                    aria-label={`Who loses the press for ${usedFor(about, press)} on ${press.frame}f`}
                    onClick={() => look(press)}
                  >
                    who loses it?
                  </Button>
                  {press.failsAt !== undefined && (
                    <Button
                      look="quiet"
                      aria-label={`Open a play that loses the press for ${usedFor(about, press)} on ${press.frame}f`}
                      onClick={() => keepPlay(press.take, press.failsAt!, one)}
                    >
                      open one that lost it
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {looked && spread && (
        <div className="mt-3" data-testid="spread">
          <h3 className="text-sm font-semibold">
            Who loses the press for {usedFor(about, looked)} on {looked.frame}f?
          </h3>
          {(spread.value?.length ?? 0) > 1 ? (
            <SpreadCurve points={spread.value!} press={looked} kit={about} />
          ) : (
            <p className="text-soft">Played with wider and wider hands…</p>
          )}
        </div>
      )}
    </section>
  );
}
