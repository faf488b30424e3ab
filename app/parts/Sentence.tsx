import { Fragment, memo, useRef, type KeyboardEvent, type ReactNode } from "react";
import {
  BOUNDS,
  directionName,
  formatSentence,
  takeOut,
  gateName,
  nameIn,
  nameableGates,
  openableGates,
  writeAt,
  type Issue,
  type Kit,
  type PathStep,
  type RefList,
  type SentencePart,
} from "#core";
import { ChoiceWord, type Choice } from "../ui/ChoiceWord";
import { leadingMarks } from "../ui/leadingMarks";
import { NumberStone } from "../ui/NumberStone";
import { LengthStone } from "../ui/LengthStone";
import { TextStone } from "../ui/TextStone";
import { useDocument, useWorkbench } from "../document/workbenchContext";

/** The maximum count of taps, presses or levels in a rule. */
const MAX_COUNT = 999;

/** Returns everything a reference in a sentence could name. */
export function listChoices(kit: Kit, list: RefList): Choice[] {
  const named = (items: readonly { readonly id: string; readonly name: string }[] | undefined) =>
    (items ?? []).map(item => ({ value: item.id, label: item.name || item.id }));
  switch (list) {
    case "control":
      return named(kit.controls);
    case "gate":
      return nameableGates(kit).map(id => ({ value: id, label: gateName(kit, id) }));
    case "openable":
      return openableGates(kit).map(id => ({ value: id, label: gateName(kit, id) }));
    case "pattern":
      return named(kit.patterns);
    case "move":
      return named(kit.moves);
    case "mode":
      return named(kit.modes);
    case "prompt":
      return named(kit.prompts);
    case "direction":
      return (kit.sticks ?? []).flatMap(stick =>
        [6, 3, 2, 1, 4, 7, 8, 9, 5].map(digit => ({
          value: `${stick.id}:${digit}`,
          label: directionName(kit, `${stick.id}:${digit}`),
        })),
      );
  }
}

/** The target of a sentence's changes: a rule of the open kit, or anything else described by a sentence. */
export interface SentenceHand {
  readonly write: (what: string, path: readonly PathStep[], value: unknown) => void;
  readonly takeOut: (what: string, path: readonly PathStep[]) => void;
}

/** Returns the target for a rule of the open kit; `base` is the rule's path in it. */
function useRuleHand(base: readonly PathStep[]): SentenceHand {
  const workbench = useWorkbench();
  return {
    write: (what, path, value) => workbench.editKit(what, now => writeAt(now, [...base, ...path], value)),
    takeOut: (what, path) => workbench.editKit(what, now => takeOut(now, [...base, ...path])),
  };
}

interface PartProps {
  readonly part: SentencePart;
  readonly kit: Kit;
  readonly base: readonly PathStep[];
  readonly hand: SentenceHand;
}

/** Returns everything a part displays as one text, so that it re-renders only when that changes. */
function keyOfPart({ part, kit, base }: PartProps): string {
  const choices = part.kind === "ref" ? listChoices(kit, part.list) : [];
  return JSON.stringify([part, base, kit.rate, choices]);
}

const Part = memo(PlainPart, (before, now) => keyOfPart(before) === keyOfPart(now));

/** An editable part: a number, a choice, a text. */
function PlainPart({ part, kit, hand }: PartProps) {
  const workbench = useWorkbench();
  if (part.kind === "words") return <>{part.text}</>;
  if (part.kind === "name")
    return (
      <TextStone
        label="Name of this rule"
        value={part.text}
        isStrong
        onChange={name => hand.write(`renamed ${name}`, ["name"], name)}
      />
    );
  const set = (value: unknown) => hand.write(`changed ${part.label}`, part.path, value);
  switch (part.kind) {
    case "length":
      return (
        <LengthStone
          label={part.label}
          value={part.value}
          rateHz={kit.rate}
          rounding={part.rounding}
          least={part.least}
          onChange={set}
          beginStep={workbench.beginStep}
        />
      );
    case "count":
      return (
        <NumberStone
          label={part.label}
          value={part.value}
          least={part.least}
          most={MAX_COUNT}
          isWhole
          onChange={set}
          beginStep={workbench.beginStep}
        />
      );
    case "number":
      return (
        <NumberStone
          label={part.label}
          value={part.value}
          least={-BOUNDS.reach}
          most={BOUNDS.reach}
          onChange={set}
          beginStep={workbench.beginStep}
        />
      );
    case "text":
      return <TextStone label={part.label} value={part.value} onChange={set} />;
    case "choice":
      return <ChoiceWord label={part.label} value={part.value} choices={part.options} onChoose={set} />;
    case "swap":
      return (
        <ChoiceWord
          label={part.label}
          value={part.value}
          choices={part.options}
          onChoose={value => set(part.options.find(option => option.value === value)?.becomes)}
        />
      );
    case "ref":
      return (
        <ChoiceWord label={part.label} value={part.id} choices={listChoices(kit, part.list)} onChoose={set} />
      );
  }
}

interface Run {
  readonly clause: readonly PathStep[] | undefined;
  readonly parts: readonly SentencePart[];
}

/** Groups neighbouring parts of one clause. */
function runsOf(parts: readonly SentencePart[]): Run[] {
  const runs: { clause: readonly PathStep[] | undefined; parts: SentencePart[] }[] = [];
  for (const part of parts) {
    const last = runs.at(-1);
    if (last && last.clause?.join() === part.clause?.join()) last.parts.push(part);
    else runs.push({ clause: part.clause, parts: [part] });
  }
  return runs;
}

/**
 * Takes the marks that follow a part one edits, such as a comma, out of the words after it, and the period at the end:
 * they are shown on the line of that part. Returns the remaining parts, and the marks by the part that they follow.
 */
function takeMarks(given: readonly SentencePart[]) {
  const marks = new Map<SentencePart, string>();
  const parts: SentencePart[] = [];
  for (const part of [...given, { kind: "words", text: "." } as const]) {
    const before = parts.at(-1);
    const found = part.kind === "words" ? leadingMarks(part.text) : "";
    if (found === "" || part.kind !== "words" || !before || before.kind === "words") parts.push(part);
    else {
      marks.set(before, found);
      parts.push({ ...part, text: part.text.slice(found.length) });
    }
  }
  return { parts, marks };
}

/** Returns whether a run of a clause can be removed. A text-only run is removable if no nested clause is. */
function isRemovable(run: Run, all: readonly SentencePart[]): boolean {
  if (!run.clause) return false;
  if (run.parts.some(part => part.kind !== "words")) return true;
  const within = `${run.clause.join()},`;
  return !all.some(
    part =>
      part.clause &&
      (`${part.clause.join()},` !== within
        ? `${part.clause.join()},`.startsWith(within)
        : part.kind !== "words"),
  );
}

/** A removable clause; `words` is its text. */
function Clause({
  run,
  words,
  hand,
  children,
}: {
  run: Run;
  words: string;
  hand: SentenceHand;
  children: readonly ReactNode[];
}) {
  const clause = useRef<HTMLSpanElement>(null);
  const remove = (from: Element) => {
    const sentence = from.closest("[data-testid=sentence]");
    const stones = () => [...(sentence?.querySelectorAll<HTMLElement>("input, button[aria-haspopup]") ?? [])];
    const at = stones().findIndex(stone => from.contains(stone));
    hand.takeOut(`took out ${words}`, run.clause!);
    // The focus stays in the sentence: on the part that took the clause's place.
    requestAnimationFrame(() => (stones()[at] ?? stones().at(-1))?.focus());
  };
  const onKeyDown = (event: KeyboardEvent<HTMLSpanElement>) => {
    const isDraft = event.target instanceof HTMLElement && "draft" in event.target.dataset;
    if (event.key !== "Delete" || isDraft) return;
    event.preventDefault();
    event.stopPropagation();
    remove(event.currentTarget);
  };
  return (
    <span data-clause="" className="group/clause" onKeyDown={onKeyDown} ref={clause}>
      {children.slice(0, -1)}
      {/* The × stays with the end of its clause: where a sentence wraps it would otherwise cover another clause. */}
      <span className={run.parts.at(-1)!.kind === "words" ? "" : "whitespace-nowrap"}>
        {children.at(-1)}
        <span className="relative">
          {"\u2060"}
          <button
            type="button"
            aria-label={`Take out: ${words}`}
            title="Take this out (Delete)"
            className="pointer-events-none absolute -top-2 right-0 z-10 size-[18px] rounded-full border border-line bg-leaf font-sans text-xs leading-none text-soft opacity-0 group-hover/clause:pointer-events-auto group-hover/clause:opacity-100 group-focus-within/clause:pointer-events-auto group-focus-within/clause:opacity-100 hover:text-foxglove focus:opacity-100"
            onClick={() => remove(clause.current!)}
          >
            ×
          </button>
        </span>
      </span>
    </span>
  );
}

/** Returns the text of a run, without a leading conjunction. */
function wordsOf(run: Run, kit: Kit): string {
  return formatSentence(run.parts, nameIn(kit))
    .replace(/^[\s,;:.]+/, "")
    .trim();
}

/** Returns the paths inside a rule that have issues. */
function troubledPaths(issues: readonly Issue[], base: readonly PathStep[]): Set<string> {
  return new Set(
    issues
      .filter(issue => base.every((step, k) => issue.path[k] === step))
      .map(issue => issue.path.slice(base.length).join()),
  );
}

/**
 * A rule as a sentence with editable numbers and choices. `base` is the rule's path in the kit; parts with
 * issues are underlined.
 */
export function Sentence({
  parts: given,
  base,
  issues = [],
  isSmall = false,
  hand: givenHand,
}: {
  parts: readonly SentencePart[];
  base: readonly PathStep[];
  issues?: readonly Issue[];
  isSmall?: boolean;
  /** The target of changes, if it is not a rule of the open kit. */
  hand?: SentenceHand;
}) {
  const kit = useDocument(state => state.kit);
  const own = useRuleHand(base);
  const hand = givenHand ?? own;
  if (!kit) return null;
  const troubled = troubledPaths(issues, base);
  const { parts, marks } = takeMarks(given);
  const shown = (part: SentencePart, key: number) => {
    const isTroubled = "path" in part && part.path.length > 0 && troubled.has(part.path.join());
    const mark = marks.get(part);
    const bare = <Part part={part} kit={kit} base={base} hand={hand} />;
    const stone = mark ? (
      <span className="whitespace-nowrap">
        {bare}
        {mark}
      </span>
    ) : (
      bare
    );
    return isTroubled ? (
      <span key={key} className="border-b-4 border-dotted border-foxglove">
        {stone}
      </span>
    ) : (
      <Fragment key={key}>{stone}</Fragment>
    );
  };
  return (
    <p
      className={`font-serif ${isSmall ? "text-lg leading-[1.8]" : "text-2xl leading-[1.5]"}`}
      data-testid="sentence"
    >
      {runsOf(parts).map((run, r) =>
        isRemovable(run, parts) ? (
          <Clause key={r} run={run} words={wordsOf(run, kit)} hand={hand}>
            {run.parts.map(shown)}
          </Clause>
        ) : (
          <Fragment key={r}>{run.parts.map(shown)}</Fragment>
        ),
      )}
    </p>
  );
}
