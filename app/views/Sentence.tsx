import { writeAt, type PathStep, type SentencePart } from "#core";
import { beginGesture, editKit } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import { ChoiceWord } from "../ui/ChoiceWord";
import { CountStone } from "../ui/CountStone";
import { LengthStone } from "../ui/LengthStone";

/** A rule read as a sentence, with its numbers and choices in place. `base` is the rule's path in the kit. */
export function Sentence({ parts, base }: { parts: readonly SentencePart[]; base: readonly PathStep[] }) {
  const kit = useWorkbench(state => state.kit);
  if (!kit) return null;
  const set = (path: readonly PathStep[], label: string) => (value: unknown) =>
    editKit(`changed ${label}`, now => writeAt(now, [...base, ...path], value));
  return (
    <p className="font-serif text-2xl leading-[1.6]" data-testid="sentence">
      {parts.map((part, i) => {
        switch (part.kind) {
          case "words":
            return <span key={i}>{part.text}</span>;
          case "name":
            return <b key={i}>{part.text}</b>;
          case "length":
            return (
              <LengthStone
                key={i}
                label={part.label}
                value={part.value}
                rateHz={kit.rate}
                rounding={part.rounding}
                least={part.least}
                onChange={set(part.path, part.label)}
                onGesture={beginGesture}
              />
            );
          case "count":
            return (
              <CountStone
                key={i}
                label={part.label}
                value={part.value}
                least={part.least}
                onChange={set(part.path, part.label)}
              />
            );
          case "choice":
            return (
              <ChoiceWord
                key={i}
                label={part.label}
                value={part.value}
                choices={part.options}
                onChoose={set(part.path, part.label)}
              />
            );
          case "control":
          case "gate":
          case "pattern": {
            const list =
              part.kind === "control"
                ? kit.controls
                : part.kind === "gate"
                  ? (kit.gates ?? [])
                  : kit.patterns;
            const choices = list.map(item => ({ value: item.id, label: item.name || item.id }));
            return (
              <ChoiceWord
                key={i}
                label={part.label}
                value={part.id}
                choices={choices}
                onChoose={set(part.path, part.label)}
              />
            );
          }
        }
      })}
      .
    </p>
  );
}
