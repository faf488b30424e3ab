import type { Kit } from "#core";
import { useStudy } from "../../document/studiesContext";
import { Button } from "../../ui/Button";
import { listCheckRows, listKeptRows, listRuleRows } from "../model/shareRows";
import { StudyBar } from "../StudyBar";
import { HandSentences } from "./HandSentences";
import { HardestPresses } from "./HardestPresses";
import { PressSpread } from "./PressSpread";
import { ShareRows } from "./ShareRows";
import { useHands, type HandsStudy } from "./useHands";

/** The button that fits a character to the takes, and the fitted character with its sample sizes. */
function FitLine({ study: { takes, beginFit, chooseFitted } }: { study: HandsStudy }) {
  const fit = useStudy("fit");
  const found = fit?.value;
  return (
    <div className="flex flex-wrap items-center gap-x-3 text-sm">
      <Button disabled={takes.length === 0 || fit?.state === "working"} onClick={beginFit}>
        Fit a hand to these takes
      </Button>
      {found && (
        <span data-testid="fitted">
          Found: onset give or take {found.character.spreadMs} ms (n = {found.onset.presses} presses in{" "}
          {found.onset.groups} like groups), length {found.character.lengthPercent} % (n ={" "}
          {found.length.presses}), fingers {found.character.fingersMs} ms (n = {found.fingers.presses}).{" "}
          <Button look="quiet" onClick={() => chooseFitted(found.character)}>
            Play with it
          </Button>
        </span>
      )}
    </div>
  );
}

/** Takes repeated by simulated players: the success of each rule, press and check, with its interval. */
export function Hands({ kit }: { kit: Kit }) {
  const study = useHands(kit);
  const played = useStudy("hands");
  const { takes, begin } = study;
  const { drawn, asked } = study.settings;
  const [first, second] = played?.value ?? [];
  const about = played?.kit ?? kit;
  const sides = (played?.value?.length ?? 0) > 1 ? [first, second] : [first];
  return (
    <section aria-label="Hands">
      <h2 className="font-serif text-2xl">Who can play it</h2>
      <HandSentences study={study} />
      <FitLine study={study} />
      <StudyBar name="hands" word="Let them play" canBegin={takes.length > 0} onBegin={begin}>
        {first && asked && (
          <span className="text-soft">
            n = {first.plays} plays, seeds {asked.seed} to {asked.seed + asked.count - 1}; 95 % intervals over{" "}
            {first.takes > 1 ? `the ${first.takes} takes` : "the plays"}
            {study.isOther && (
              <b className="text-foxglove">; this answers the question before it was changed</b>
            )}
          </span>
        )}
      </StudyBar>
      {takes.length === 0 && <p className="text-soft">No take to play: record one in Play.</p>}
      <ShareRows
        label="Kept: meant presses that some move or prompt uses, those lost in the take included"
        sides={drawn}
        rows={listKeptRows(sides)}
      />
      {first && (
        <p className="mt-1 text-sm text-soft" data-testid="unwanted">
          Unwanted, a play:{" "}
          {sides.map(side => side && (side.unwanted / Math.max(1, side.plays)).toFixed(2)).join(" beside ")}{" "}
          (presses not meant, or doubled, that set something off; and failures of “never” checks)
        </p>
      )}
      <ShareRows
        label="By rule: how many of the meant presses on its controls it uses"
        sides={drawn}
        rows={listRuleRows(about, sides)}
      />
      <ShareRows label="By check: how often it holds" sides={drawn} rows={listCheckRows(played, sides)} />
      <HardestPresses presses={first?.presses ?? []} kit={about} study={study} />
      <PressSpread kit={about} />
    </section>
  );
}
