import { arrowOf, writeAt, type Kit, type Stick } from "#core";
import { addStick } from "../edits/controlEdits";
import { removeAt } from "../edits/kitEdits";
import { Button } from "../ui/Button";
import { ChoiceWord } from "../ui/ChoiceWord";
import { StickDial, useDigit } from "./StickDial";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";

const OPPOSITES = [
  { value: "neutral", label: "neither counts", hint: "left and right together are as good as nothing" },
  {
    value: "latest",
    label: "the one pressed last counts",
    hint: "a hand rolling from left to right never stops",
  },
  {
    value: "first",
    label: "the one pressed first goes on counting",
    hint: "the second is not seen until the first is let go",
  },
];

const ZONES = [
  { value: "axis", label: "a square", hint: "each axis counts alone" },
  { value: "circle", label: "a circle", hint: "the distance from the centre counts" },
];

const WAYS = [
  { value: "", label: "axis by axis", hint: "a direction counts as soon as its half-axis does" },
  { value: "8", label: "in eight equal directions", hint: "each is an eighth of the circle" },
  { value: "4", label: "in four equal directions", hint: "no diagonals" },
];

const SIDES = ["up", "down", "left", "right"] as const;
const NEVER = "";

/** Returns four controls for the sides of a stick: by name, otherwise the first four. */
function guessSides(kit: Kit): Record<(typeof SIDES)[number], string> | undefined {
  const guessed = SIDES.map(
    side => kit.controls.find(control => control.id === side || control.name.toLowerCase() === side)?.id,
  );
  const rest = kit.controls.map(control => control.id).filter(id => !guessed.includes(id));
  const [up, down, left, right] = guessed.map(id => id ?? rest.shift());
  return up && down && left && right ? { up, down, left, right } : undefined;
}

function StickCard({ kit, stick, at }: { kit: Kit; stick: Stick; at: number }) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const digit = useDigit(stick);
  const set = (field: string, value: unknown) =>
    workbench.editKit(`changed ${stick.name}`, now => writeAt(now, ["sticks", at, field], value));
  /** Sets a field, or removes it where the value is its default. */
  const setOr = (field: "zone" | "ways" | "mirrorWhen", value: unknown, byDefault: string) =>
    workbench.editKit(`changed ${stick.name}`, now => {
      const { [field]: _, ...rest } = now.sticks![at]!;
      return writeAt(now, ["sticks", at], value === byDefault ? rest : { ...rest, [field]: value });
    });
  const controls = kit.controls.map(control => ({ value: control.id, label: control.name }));
  const mirrors = [
    { value: NEVER, label: "never" },
    ...(kit.gates ?? []).map(gate => ({ value: gate.id, label: `while ${gate.name} is open` })),
  ];
  const press = Math.max(
    ...kit.controls
      .filter(item => SIDES.some(side => stick[side] === item.id))
      .map(item => item.pressAt ?? 0.5),
  );
  const remove = () => {
    takeAway(
      `${stick.name} is no stick any more; its four controls stay.`,
      workbench.editKit(`deleted ${stick.name}`, now => removeAt(now, "sticks", at)),
    );
  };
  return (
    <li className="flex items-start gap-6 border-b border-line py-4">
      <StickDial kit={kit} stick={stick} />
      <div className="font-serif text-xl leading-[1.7]">
        <p>
          <b>{stick.name}</b> faces{" "}
          <span className="font-mono text-lg font-semibold" data-testid={`digit-${stick.id}`}>
            {digit} {arrowOf(digit)}
          </span>
          : up is{" "}
          {SIDES.map((side, k) => (
            <span key={side}>
              {k > 0 && `, ${side} is `}
              <ChoiceWord
                label={`${side} of ${stick.name}`}
                value={stick[side]}
                choices={controls}
                onChoose={value => set(side, value)}
              />
            </span>
          ))}
          . When opposites are down together,{" "}
          <ChoiceWord
            label={`opposites of ${stick.name}`}
            value={stick.opposites ?? "neutral"}
            choices={OPPOSITES}
            onChoose={value => set("opposites", value)}
          />
          . Its dead zone is{" "}
          <ChoiceWord
            label={`dead zone of ${stick.name}`}
            value={stick.zone ?? "axis"}
            choices={ZONES}
            onChoose={value => setOr("zone", value, "axis")}
          />
          , and a pad turns it{" "}
          <ChoiceWord
            label={`directions of ${stick.name}`}
            value={String(stick.ways ?? NEVER)}
            choices={WAYS}
            onChoose={value => setOr("ways", value === NEVER ? NEVER : Number(value), NEVER)}
          />
          . Left and right change places{" "}
          <ChoiceWord
            label={`mirroring of ${stick.name}`}
            value={stick.mirrorWhen ?? NEVER}
            choices={mirrors}
            onChoose={value => setOr("mirrorWhen", value, NEVER)}
          />
          .
        </p>
        <p className="font-sans text-sm text-soft">
          Inside the {stick.zone === "circle" ? "ring" : "square"} it counts as centred:{" "}
          {Math.round(press * 100)} % of the way. Drag its edge; drag in the dial to play it.
        </p>
        <Button look="quiet" className="-ml-2 font-sans" onClick={remove}>
          Split into four controls
        </Button>
      </div>
    </li>
  );
}

/** The sticks, each made of four controls, as a dial and a sentence. */
export function Sticks() {
  const workbench = useWorkbench();
  const kit = useDocument(state => state.kit);
  if (!kit) return null;
  const sides = guessSides(kit);
  const sticks = kit.sticks ?? [];
  return (
    <section aria-label="Sticks" className="min-h-0 grow overflow-auto px-6 py-4">
      <h1 className="font-serif text-2xl">Sticks, and which way they face</h1>
      <p className="text-sm text-soft">
        Four controls read as one direction, numbered as on a number pad. Left and right, or up and down,
        pressed together are resolved before any rule sees them.
      </p>
      <ul>
        {sticks.map((stick, at) => (
          <StickCard key={stick.id} kit={kit} stick={stick} at={at} />
        ))}
      </ul>
      <p className="mt-4 text-sm">
        {sides ? (
          <Button
            onClick={() =>
              workbench.editKit("added a stick", now =>
                addStick(now, sticks.length === 0 ? "Stick" : `Stick ${sticks.length + 1}`, sides),
              )
            }
          >
            Make a stick of four controls
          </Button>
        ) : (
          <span className="text-soft">
            A stick is made of four controls: add up, down, left and right first.
          </span>
        )}
      </p>
    </section>
  );
}
