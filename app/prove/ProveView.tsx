import { useCallback, useState } from "react";
import { useSearchParams } from "react-router";
import { Button } from "../ui/Button";
import { vacuousWords } from "../ui/checkSum";
import { useChecking, useProof, useProofStore } from "../document/checksContext";
import { usePlaybackControl } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { NextStep } from "../parts/NextStep";
import { GameAgreement } from "./GameAgreement";
import { Beside } from "./Beside";
import { CheckPanel } from "./CheckPanel";
import { FilteredGrid, type GridFilter } from "./FilteredGrid";
import { readCell } from "./model/cells";
import type { Chosen } from "./ProofGrid";
import { ProofSum } from "../shell/ProofSum";

function Empty() {
  const checking = useChecking();
  const hasTake = useDocument(state => state.openTakeId !== undefined);
  return (
    <div className="grid min-h-0 grow [place-items:safe_center] overflow-auto px-7">
      <div className="max-w-xl">
        <h1 className="font-serif text-3xl">No checks yet</h1>
        <p className="mt-2 text-lg text-soft">
          Write down once what must and must not happen. Every later edit is judged by it, in every take,
          while the number is still in your hand.
        </p>
        <p className="mt-3">
          On the tape below, go to a frame and press <kbd className="font-mono font-semibold">M</kbd>: what
          happens there must happen. <kbd className="font-mono font-semibold">N</kbd>: it must never.{" "}
          <kbd className="font-mono font-semibold">A</kbd>: every press of that control is answered.
        </p>
        <p className="mt-3">
          <Button look="strong" disabled={!hasTake} onClick={() => checking.mustStay()}>
            Keep the open take as it is
          </Button>
          {!hasTake && <span className="ml-3 text-soft">Record a take in Play first.</span>}
        </p>
      </div>
    </div>
  );
}

/** Returns the chosen cell, from the address, and the action that chooses one and opens its frame. */
function useChosen(): {
  readonly chosen: Chosen;
  readonly choose: (checkId: string, takeId: string | undefined) => void;
} {
  const workbench = useWorkbench();
  const proving = useProofStore();
  const playback = usePlaybackControl();
  const [search, setSearch] = useSearchParams();
  const choose = useCallback(
    (checkId: string, takeId: string | undefined) => {
      setSearch(
        now => {
          now.set("check", checkId);
          if (takeId) now.set("take", takeId);
          return now;
        },
        { replace: true },
      );
      if (!takeId) return;
      workbench.openTake(takeId);
      const { kit, checks } = workbench.getState();
      const check = checks.find(({ id }) => id === checkId);
      const verdict = check && readCell(proving.getState(), check, takeId).verdict;
      if (kit && verdict?.f !== undefined) playback.goTo(Math.round((verdict.f * kit.rate) / verdict.rate));
    },
    [workbench, proving, playback, setSearch],
  );
  return {
    chosen: { check: search.get("check") ?? undefined, take: search.get("take") ?? undefined },
    choose,
  };
}

/** The sum of all results, the search field and the filters. */
function ProofBar({
  filter,
  trouble,
  onFilter,
}: {
  filter: GridFilter;
  trouble: string;
  onFilter: (filter: GridFilter) => void;
}) {
  const checking = useChecking();
  const vacuous = useProof(state => state.vacuous);
  const { words, failsFirst, onlyFailing } = filter;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-5 py-2 text-sm">
      <h1 className="font-serif text-2xl">
        <ProofSum />
      </h1>
      {vacuous > 0 && <p className="text-soft">{vacuousWords({ vacuous })}</p>}
      <input
        type="search"
        aria-label="Find a take or a check"
        placeholder="Find a take or a check"
        className="w-44 rounded-full border border-edge bg-leaf px-3 py-1"
        value={words}
        onChange={event => onFilter({ ...filter, words: event.target.value })}
      />
      <Button
        look="quiet"
        aria-pressed={failsFirst}
        onClick={() => onFilter({ ...filter, failsFirst: !failsFirst })}
      >
        {failsFirst ? "Failing first" : "In their order"}
      </Button>
      <Button
        look="quiet"
        aria-pressed={onlyFailing}
        onClick={() => onFilter({ ...filter, onlyFailing: !onlyFailing })}
      >
        {onlyFailing ? "Only failing takes" : "All takes"}
      </Button>
      <Button look="quiet" className="ml-auto" onClick={() => checking.mustStay()}>
        Keep the open take as it is
      </Button>
      {trouble && <p className="text-foxglove">Not all was judged: {trouble}</p>}
    </div>
  );
}

const EVERYTHING: GridFilter = {
  words: "",
  failsFirst: true,
  onlyFailing: false,
  since: "edit",
  onlyTurned: false,
};

/** Prove: requirements judged on every take at every edit. */
export function ProveView() {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const checks = useDocument(state => state.checks);
  const trouble = useProof(state => state.trouble);
  const { chosen, choose } = useChosen();
  const [filter, setFilter] = useState<GridFilter>(EVERYTHING);
  if (!kit) return null;
  if (checks.length === 0)
    return (
      <>
        <Empty />
        <GameAgreement />
      </>
    );
  const check = checks.find(item => item.id === chosen.check) ?? checks[0]!;
  const take = takes.find(item => item.id === chosen.take);
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_350px] max-lg:grid-cols-[minmax(0,1fr)_290px] narrow:block narrow:overflow-auto">
      <section aria-label="Checks over takes" className="flex min-h-0 flex-col">
        <ProofBar filter={filter} trouble={trouble} onFilter={setFilter} />
        <div className="px-5">
          <NextStep view="prove" isDone={chosen.take !== undefined}>
            Choose a mark: its take opens below at the frame that matters, and the possible actions are on the
            right.
          </NextStep>
        </div>
        <FilteredGrid
          filter={filter}
          chosen={{ check: check.id, take: chosen.take }}
          onFilter={setFilter}
          onChoose={choose}
        />
        <GameAgreement />
        <Beside kit={kit} checks={checks} takes={takes} />
      </section>
      <section
        aria-label="The chosen check"
        className="flex min-h-0 flex-col border-l border-line narrow:border-t narrow:border-l-0"
      >
        <CheckPanel kit={kit} check={check} take={take} takes={takes} />
      </section>
    </div>
  );
}
