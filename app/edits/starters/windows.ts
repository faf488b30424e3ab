import { stageOf } from "#stage";
import { gateNamed, pressOf, type Starter } from "#core";

/** Starters for windows of time: buffers, coyotes, chains and prompts. */
export const WINDOW_STARTERS: readonly Starter[] = [
  {
    id: "early",
    words: "Buffer an early press",
    line: "pressed before it may happen, it happens as soon as it may",
    make(control, take, kit) {
      const { id: pattern, patterns } = pressOf(kit, control, take);
      const move = take("move", "Act");
      const head = { id: move, name: "Act", pattern, buffer: "8f" };
      const opens = `move:${move}`;
      // A press is buffered for an existing gate: moves with a timeline, the ground of a runner; otherwise
      // for a new gate.
      const busy = (kit.moves ?? []).find(item => item.frames && !item.off);
      if (busy) {
        const slot = busy.slot === undefined ? {} : { slot: busy.slot };
        return { patterns, moves: [{ ...head, ...slot, bans: [`busy:${busy.slot ?? "main"}`] }], opens };
      }
      const stage = stageOf(kit);
      const staged = stage?.kind === "runner" ? stage.gates.footing : undefined;
      if (staged !== undefined) return { patterns, moves: [{ ...head, needs: [{ gate: staged }] }], opens };
      const { id: gate, gates } = gateNamed(kit, "Ready", take);
      return { gates, patterns, moves: [{ ...head, needs: [{ gate }] }], opens };
    },
  },
  {
    id: "late",
    words: "Allow a late jump",
    line: "pressed just after the ledge, it still counts (coyote); and just before the landing too",
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
];
