import type { Gate, Kit, Move, Pattern, Prompt } from "#core";
import { stageOf } from "#stage";
import { freshId } from "./edits";

/** Rules that a starter brings, to be added with ids of their own. */
interface Bundle {
  readonly controls?: Kit["controls"];
  readonly sticks?: NonNullable<Kit["sticks"]>;
  readonly gates?: readonly Gate[];
  readonly patterns: readonly Pattern[];
  readonly moves?: readonly Move[];
  readonly prompts?: readonly Prompt[];
  /** The key of the rule to open. */
  readonly opens: string;
}

/** A way to begin: a few rules in designers' words, with numbers that work. */
export interface Starter {
  readonly id: string;
  readonly words: string;
  readonly line: string;
  readonly make: (
    control: Kit["controls"][number],
    take: (kind: string, name: string) => string,
    kit: Kit,
  ) => Bundle;
}

const press = (id: string, name: string, control: string): Pattern => ({ id, name, kind: "press", control });

/** The press of a control that is there already, active everywhere, or a new one. */
function pressOf(
  kit: Kit,
  control: Kit["controls"][number],
  take: (kind: string, name: string) => string,
): { id: string; patterns: Pattern[] } {
  const found = kit.patterns.find(
    pattern => pattern.kind === "press" && pattern.control === control.id && !pattern.off && !pattern.modes,
  );
  if (found) return { id: found.id, patterns: [] };
  const name = `${control.name} press`;
  const id = take("pattern", name);
  return { id, patterns: [press(id, name, control.id)] };
}

/** An existing gate of that name, or a new one. */
function gateNamed(
  kit: Kit,
  name: string,
  take: (kind: string, name: string) => string,
): { id: string; gates: Gate[] } {
  const found = kit.gates?.find(gate => gate.name === name);
  if (found) return { id: found.id, gates: [] };
  const id = take("gate", name);
  return { id, gates: [{ id, name }] };
}

/** The stick of the kit, or one made of four new controls on the arrow keys. */
function stickOf(
  kit: Kit,
  take: (kind: string, name: string) => string,
): { id: string; bundle: Partial<Bundle> } {
  const found = kit.sticks?.[0];
  if (found) return { id: found.id, bundle: {} };
  const sides = (["Up", "Down", "Left", "Right"] as const).map(name => {
    const known = kit.controls.find(control => control.name === name);
    return known ?? { id: take("control", name), name, bindings: [[`key:Arrow${name}`]] };
  });
  const [up, down, left, right] = sides.map(side => side.id) as [string, string, string, string];
  const id = take("control", "Stick");
  return {
    id,
    bundle: {
      controls: sides.filter(side => !kit.controls.includes(side)),
      sticks: [{ id, name: "Stick", up, down, left, right }],
    },
  };
}

export const STARTERS: readonly Starter[] = [
  {
    id: "early",
    words: "Remember an early press",
    line: "pressed before it may happen, it happens as soon as it may",
    make(control, take, kit) {
      const { id: gate, gates } = gateNamed(kit, "Ready", take);
      const { id: pattern, patterns } = pressOf(kit, control, take);
      const move = take("move", "Act");
      return {
        gates,
        patterns,
        moves: [{ id: move, name: "Act", pattern, needs: [{ gate }], buffer: "8f" }],
        opens: `move:${move}`,
      };
    },
  },
  {
    id: "late",
    words: "Forgive a late jump",
    line: "pressed just after the ledge, it still counts; and just before the landing too",
    make(control, take, kit) {
      const { id: gate, gates } = gateNamed(kit, "Footing", take);
      const { id: pattern, patterns } = pressOf(kit, control, take);
      const move = take("move", "Jump");
      return {
        gates,
        patterns,
        moves: [
          {
            id: move,
            name: "Jump",
            pattern,
            needs: [{ gate, coyote: "5f" }],
            buffer: "6f",
            spends: [gate],
            ...(stageOf(kit)?.kind === "runner" ? { effect: { leap: 19 } } : {}),
          },
        ],
        opens: `move:${move}`,
      };
    },
  },
  {
    id: "hold",
    words: "Hold",
    line: "held long enough, with a meter that fills",
    make(control, take) {
      const id = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id, name: `${control.name} hold`, kind: "hold", control: control.id, for: "30f", fire: "reach" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "tap-or-hold",
    words: "Tap or hold",
    line: "two meanings on one button, and no length of press left over",
    make(control, take) {
      const tap = take("pattern", `${control.name} tap`);
      const hold = take("pattern", `${control.name} hold`);
      return {
        patterns: [
          { id: tap, name: `${control.name} tap`, kind: "tap", control: control.id, max: "11f" },
          {
            id: hold,
            name: `${control.name} hold`,
            kind: "hold",
            control: control.id,
            for: "12f",
            fire: "reach",
          },
        ],
        opens: `pattern:${tap}`,
      };
    },
  },
  {
    id: "charge",
    words: "Charge and let go",
    line: "the longer the hold the more it gives, in three levels",
    make(control, take) {
      const id = take("pattern", `${control.name} charge`);
      return {
        patterns: [
          {
            id,
            name: `${control.name} charge`,
            kind: "charge",
            control: control.id,
            full: "60f",
            levels: [
              { name: "one", at: "15f" },
              { name: "two", at: "35f" },
              { name: "three", at: "60f" },
            ],
            curve: "ease-in",
            output: [0, 100],
            fire: "release",
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "double",
    words: "Double tap",
    line: "twice within a moment; the single tap is not kept waiting",
    make(control, take) {
      const id = take("pattern", `${control.name} twice`);
      return {
        patterns: [
          {
            id,
            name: `${control.name} twice`,
            kind: "taps",
            control: control.id,
            count: 2,
            gap: "14f",
            answer: "nth",
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "chain",
    words: "Chain of attacks",
    line: "three in a row, each pressed while the one before goes on",
    make(control, take, kit) {
      const { id: pattern, patterns } = pressOf(kit, control, take);
      const links = ["Second may follow", "Third may follow"].map(name => ({ id: take("gate", name), name }));
      const [first, second, third] = ["First blow", "Second blow", "Third blow"].map(name =>
        take("move", name),
      ) as [string, string, string];
      const frames = { startup: "6f", active: "4f", recovery: "14f" };
      return {
        gates: links,
        patterns,
        moves: [
          {
            id: first,
            name: "First blow",
            pattern,
            bans: ["busy:main"],
            frames,
            opens: [{ gate: links[0]!.id, from: "9f", to: "23f" }],
          },
          {
            id: second,
            name: "Second blow",
            pattern,
            needs: [{ gate: links[0]!.id }],
            buffer: "8f",
            priority: 1,
            frames,
            opens: [{ gate: links[1]!.id, from: "9f", to: "23f" }],
          },
          {
            id: third,
            name: "Third blow",
            pattern,
            needs: [{ gate: links[1]!.id }],
            buffer: "8f",
            priority: 2,
            frames: { ...frames, recovery: "24f" },
          },
        ],
        opens: `move:${second}`,
      };
    },
  },
  {
    id: "chord",
    words: "Two buttons together",
    line: "pressed as one, within a few frames of each other",
    make(control, take, kit) {
      const id = take("pattern", "Together");
      const other = kit.controls.find(item => item !== control);
      const second = other ?? { id: take("control", "Other"), name: "Other", bindings: [["key:KeyL"]] };
      return {
        ...(other ? {} : { controls: [second] }),
        patterns: [{ id, name: "Together", kind: "chord", controls: [control.id, second.id], spread: "4f" }],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "motion",
    words: "Motion and button",
    line: "a stick turned down, to the corner and forward, then a press",
    make(control, take, kit) {
      const id = take("pattern", "Quarter turn");
      const { id: stick, bundle } = stickOf(kit, take);
      return {
        ...bundle,
        patterns: [
          {
            id,
            name: "Quarter turn",
            kind: "sequence",
            gap: "10f",
            steps: [
              { dir: `${stick}:2` },
              { dir: `${stick}:3` },
              { dir: `${stick}:6` },
              { press: control.id },
            ],
          },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "mash",
    words: "Mash",
    line: "so many presses in so little time",
    make(control, take) {
      const id = take("pattern", `${control.name} mash`);
      return {
        patterns: [
          { id, name: `${control.name} mash`, kind: "mash", controls: [control.id], count: 6, within: "60f" },
        ],
        opens: `pattern:${id}`,
      };
    },
  },
  {
    id: "prompt",
    words: "Timed prompt",
    line: "a button is shown, and must be pressed in time",
    make(control, take, kit) {
      const { id: pattern, patterns } = pressOf(kit, control, take);
      const prompt = take("prompt", "Catch");
      return {
        patterns,
        prompts: [
          {
            id: prompt,
            name: "Catch",
            ask: [pattern],
            starts: { at: "60f" },
            lead: "30f",
            window: "40f",
            target: "20f",
            grades: [
              { name: "perfect", within: "4f" },
              { name: "good", within: "12f" },
            ],
            early: "fail",
          },
        ],
        opens: `prompt:${prompt}`,
      };
    },
  },
  {
    id: "press",
    words: "Press",
    line: "on the frame it goes down",
    make(control, take) {
      const id = take("pattern", `${control.name} press`);
      return { patterns: [press(id, `${control.name} press`, control.id)], opens: `pattern:${id}` };
    },
  },
  {
    id: "release",
    words: "Release",
    line: "on the frame it comes up",
    make(control, take) {
      const id = take("pattern", `${control.name} release`);
      return {
        patterns: [{ id, name: `${control.name} release`, kind: "release", control: control.id }],
        opens: `pattern:${id}`,
      };
    },
  },
];

/** Adds the rules of a starter to a kit. Gives the kit and the key of the rule to open. */
export function applyStarter(kit: Kit, starter: Starter, controlId: string): { kit: Kit; opens: string } {
  const control = kit.controls.find(item => item.id === controlId) ?? kit.controls[0];
  if (!control) return { kit, opens: "" };
  const taken: Record<string, Set<string>> = {
    control: new Set([...kit.controls, ...(kit.sticks ?? [])].map(item => item.id)),
    gate: new Set((kit.gates ?? []).map(item => item.id)),
    pattern: new Set(kit.patterns.map(item => item.id)),
    move: new Set((kit.moves ?? []).map(item => item.id)),
    prompt: new Set((kit.prompts ?? []).map(item => item.id)),
  };
  const take = (kind: string, name: string) => {
    const id = freshId(name, taken[kind]!);
    taken[kind]!.add(id);
    return id;
  };
  const bundle = starter.make(control, take, kit);
  const grown = <T>(was: readonly T[] | undefined, more: readonly T[] | undefined) =>
    more && more.length > 0 ? [...(was ?? []), ...more] : was;
  const lists = {
    sticks: grown(kit.sticks, bundle.sticks),
    gates: grown(kit.gates, bundle.gates),
    moves: grown(kit.moves, bundle.moves),
    prompts: grown(kit.prompts, bundle.prompts),
  };
  const present = Object.fromEntries(Object.entries(lists).filter(([, list]) => list !== undefined));
  return {
    kit: {
      ...kit,
      ...present,
      controls: grown(kit.controls, bundle.controls)!,
      patterns: [...kit.patterns, ...bundle.patterns],
    },
    opens: bundle.opens,
  };
}

/** A move on the first pattern, or a plain gate, as a start for a rule that no starter brings. */
export function addPlain(kit: Kit, what: "move" | "gate"): { kit: Kit; opens: string } {
  if (what === "gate") {
    const gates = kit.gates ?? [];
    const id = freshId("gate", new Set(gates.map(gate => gate.id)));
    return {
      kit: { ...kit, gates: [...gates, { id, name: `Gate ${gates.length + 1}` }] },
      opens: `gate:${id}`,
    };
  }
  const moves = kit.moves ?? [];
  const pattern = kit.patterns[0];
  if (!pattern) return { kit, opens: "" };
  const id = freshId("move", new Set(moves.map(move => move.id)));
  const move = { id, name: `Move ${moves.length + 1}`, pattern: pattern.id };
  return { kit: { ...kit, moves: [...moves, move] }, opens: `move:${id}` };
}
