import {
  describeGate,
  listNumbers,
  offerCheck,
  offerGate,
  offerMove,
  offerPattern,
  offerPrompt,
  ownValue,
  readAt,
  takeOut,
  writeAt,
  type Check,
  type Kit,
  type Layout,
  type Take,
  changeCheckRate,
} from "#core";
import { compileRules, stageOf } from "#stage";
import { addAssist, ASSIST_STARTERS, changeAssist, removeAssist } from "../edits/assistEdits";
import { addControl, addStick, bindControl, removeControl, setThresholds } from "../edits/controlEdits";
import { freshId } from "../edits/freshId";
import { kindsOn, setEffect } from "../edits/effectEdits";
import { removeAt, renameKit } from "../edits/kitEdits";
import { applyLayout, layoutOf } from "../edits/layoutEdits";
import { findGate, giveDuel, giveRopes, giveRunner } from "../edits/giveStage";
import { addBeam, freshLetter, paintTiles, resizeLevel } from "../edits/levelEdits";
import { addMode, freshSwitch, removeMode, setActiveIn } from "../edits/modeEdits";
import { changeRate } from "../edits/rateEdits";
import { renameId, type IdList } from "../edits/renameId";
import { duplicateRule, moveRule, removeRule, RULE_LISTS, turnRule } from "../edits/ruleEdits";
import { addFollowing, addPlain, applyStarter, STARTERS } from "../edits/starters/starters";
import { copyStretch, pasteClip, shiftStretch, wipeStretch } from "../edits/takeClips";
import { toggleUnmeant } from "../edits/markUnmeant";
import { convertTake, copyTake, paintControl, paintGate, paintSpeed } from "../edits/takeEdits";
import { closeStretch, listStretches } from "../maps/pressLengths";
import type { KitDocument, Variant } from "../storage/records";

/** Makes choices from the numbers of a random test. */
export interface Choice {
  /** Returns an item of a list; undefined for an empty one. */
  readonly of: <T>(list: readonly T[]) => T | undefined;
  readonly upTo: (most: number) => number;
}

/** One kind of edit of a document, as a screen makes it; returns the same document if it does not apply. */
export type AnyEdit = (document: KitDocument, choose: Choice) => KitDocument;

type KitEdit = (kit: Kit, choose: Choice) => Kit | undefined;

const onKit =
  (edit: KitEdit): AnyEdit =>
  (document, choose) => ({ ...document, kit: edit(document.kit, choose) ?? document.kit });

const onTake =
  (edit: (take: Take, choose: Choice, document: KitDocument) => Take): AnyEdit =>
  (document, choose) => {
    const chosen = choose.of(document.takes);
    const takes = document.takes.map(take => (take === chosen ? edit(take, choose, document) : take));
    return { ...document, takes };
  };

const onChecks =
  (edit: (checks: readonly Check[], choose: Choice, document: KitDocument) => readonly Check[]): AnyEdit =>
  (document, choose) => ({ ...document, checks: edit(document.checks, choose, document) });

const onLayouts =
  (edit: (layouts: readonly Layout[], choose: Choice, document: KitDocument) => readonly Layout[]): AnyEdit =>
  (document, choose) => ({ ...document, layouts: edit(document.layouts, choose, document) });

const onVariants =
  (edit: (list: readonly Variant[], choose: Choice, document: KitDocument) => readonly Variant[]): AnyEdit =>
  (document, choose) => ({ ...document, variants: edit(document.variants, choose, document) });

/** Returns an id that nothing in a list has. */
const newId = (word: string, list: readonly { readonly id: string }[]) =>
  freshId(word, new Set(list.map(({ id }) => id)));

const without = <T>(list: readonly T[], item: T | undefined) => list.filter(other => other !== item);

const ID_LISTS = ["controls", "patterns", "moves", "gates", "prompts"] as const satisfies readonly IdList[];
const LISTS_WITH_ITEMS = ["sticks", "gates", "moves", "modes", "switches", "prompts"] as const;

function levelOf(kit: Kit): readonly string[] | undefined {
  return (kit.stage as { readonly level?: readonly string[] } | undefined)?.level;
}

/** Applies an offer of a rule's sentence. */
function takeOffer(kit: Kit, choose: Choice): Kit | undefined {
  const list = choose.of(["patterns", "moves", "gates", "prompts"] as const)!;
  const index = choose.upTo((kit[list]?.length ?? 1) - 1);
  const rule = kit[list]?.[index];
  if (!rule) return undefined;
  const offers = {
    patterns: () => offerPattern(kit.patterns[index]!, kit),
    moves: () => offerMove(kit.moves![index]!, kit),
    gates: () => offerGate(kit.gates![index]!, kit),
    prompts: () => offerPrompt(kit.prompts![index]!, kit),
  }[list]() as readonly { readonly becomes: unknown }[];
  const offer = choose.of(offers);
  return offer && writeAt(kit, [list, index], offer.becomes);
}

/** Changes a choice of a gate's sentence. */
function swapWord(kit: Kit, choose: Choice): Kit | undefined {
  const index = choose.upTo((kit.gates?.length ?? 1) - 1);
  const gate = kit.gates?.[index];
  if (!gate) return undefined;
  const refs = describeGate(gate).filter(part => part.kind === "ref");
  const part = choose.of(refs);
  const other = choose.of(kit.gates!.slice(0, index));
  return part && other && "path" in part ? writeAt(kit, ["gates", index, ...part.path], other.id) : undefined;
}

const KIT_EDITS: Readonly<Record<string, KitEdit>> = {
  "rename the kit": (kit, choose) => renameKit(kit, `Kit ${choose.upTo(99)}`),
  "add a control": (kit, choose) => addControl(kit, `Control ${choose.upTo(9)}`),
  "remove a control": (kit, choose) => removeControl(kit, choose.of(kit.controls)?.id ?? ""),
  "bind a control": (kit, choose) =>
    bindControl(kit, choose.of(kit.controls)?.id ?? "", [[`key:Key${choose.of([..."QWERTY"])}`]]),
  "unbind a control": (kit, choose) => bindControl(kit, choose.of(kit.controls)?.id ?? "", []),
  "set a threshold": (kit, choose) =>
    setThresholds(kit, [choose.of(kit.controls)?.id ?? ""], "pressAt", 0.2 + choose.upTo(7) / 10),
  "make a stick": (kit, choose) => {
    const [up, down, left, right] = kit.controls.slice(choose.upTo(2)).map(({ id }) => id);
    return right === undefined
      ? undefined
      : addStick(kit, "Stick", { up: up!, down: down!, left: left!, right });
  },
  "turn the queue": kit => ({ ...kit, queue: kit.queue === "all" ? "newest" : "all" }),
  "remove an item of a list": (kit, choose) => {
    const list = choose.of(LISTS_WITH_ITEMS.filter(name => (kit[name]?.length ?? 0) > 0));
    return list && removeAt(kit, list, choose.upTo(kit[list]!.length - 1));
  },
  "add an assist": (kit, choose) => addAssist(kit, choose.of(ASSIST_STARTERS)!),
  "change an assist": (kit, choose) =>
    changeAssist(kit, choose.of(kit.assists ?? [])?.id ?? "", assist => ({ ...assist, windows: 175 })),
  "remove an assist": (kit, choose) => removeAssist(kit, choose.of(kit.assists ?? [])?.id ?? ""),
  "give a runner's stage": giveRunner,
  "give a duel": giveDuel,
  "give ropes": giveRopes,
  "take the stage away": ({ stage: _stage, ...kit }) => kit as Kit,
  "draw the level": (kit, choose) => {
    const level = levelOf(kit);
    const place = () => ({ column: choose.upTo(20), row: choose.upTo(8) });
    return level && writeAt(kit, ["stage", "level"], paintTiles(level, place(), place(), "#"));
  },
  "resize the level": (kit, choose) => {
    const level = levelOf(kit);
    return (
      level && writeAt(kit, ["stage", "level"], resizeLevel(level, choose.upTo(6) - 3, choose.upTo(4) - 2))
    );
  },
  "add a mode": addMode,
  "remove a mode": (kit, choose) => removeMode(kit, choose.of(kit.modes ?? [])?.id ?? ""),
  "rename a mode": (kit, choose) => {
    const at = choose.upTo((kit.modes?.length ?? 1) - 1);
    return kit.modes?.[at] && writeAt(kit, ["modes", at, "name"], "Another mode");
  },
  "carry presses into a mode": (kit, choose) => {
    const at = choose.upTo((kit.modes?.length ?? 1) - 1);
    return kit.modes?.[at] && writeAt(kit, ["modes", at, "carry"], true);
  },
  "add a switch": kit => {
    const withModes = (kit.modes?.length ?? 0) > 1 ? kit : addMode(addMode(kit));
    const added = freshSwitch(withModes);
    return added && { ...withModes, switches: [...(kit.switches ?? []), added] };
  },
  "turn a rule's mode": (kit, choose) => {
    const list = choose.of(["patterns", "moves", "prompts"] as const)!;
    const rules: readonly { readonly id: string }[] = kit[list] ?? [];
    const [rule, mode] = [choose.of(rules), choose.of(kit.modes ?? [])];
    return rule && mode && setActiveIn(kit, list, rule.id, mode.id, choose.upTo(1) === 1);
  },
  "duplicate a rule": (kit, choose) => duplicateRule(kit, placeOf(kit, choose)),
  "move a rule": (kit, choose) => moveRule(kit, placeOf(kit, choose), choose.upTo(1) === 1 ? 1 : -1),
  "switch a rule off": (kit, choose) => turnRule(kit, placeOf(kit, choose)),
  "remove a rule": (kit, choose) => removeRule(kit, placeOf(kit, choose)),
  "rename a rule": (kit, choose) => {
    const { list, index } = placeOf(kit, choose);
    const rule = list === "switches" ? undefined : kit[list]?.[index];
    return rule && writeAt(kit, [list, index, "name"], `Rule ${choose.upTo(99)}`);
  },
  "add a move": kit => addPlain(kit, "move").kit,
  "add a gate": kit => addPlain(kit, "gate").kit,
  "add a move that follows": (kit, choose) =>
    addFollowing(kit, choose.upTo((kit.moves?.length ?? 1) - 1))?.kit,
  "take up an offer": takeOffer,
  "choose another word": swapWord,
  "change a number": (kit, choose) => {
    const number = choose.of(listNumbers(kit));
    if (!number) return undefined;
    const written = readAt(kit, number.path);
    return writeAt(
      kit,
      number.path,
      typeof written === "string" ? `${1 + choose.upTo(30)}f` : 1 + choose.upTo(3),
    );
  },
};

/** Returns an index into a list of a kit, −1 for an empty one. */
const indexIn = (list: readonly unknown[] | undefined, choose: Choice) =>
  list && list.length > 0 ? choose.upTo(list.length - 1) : -1;

const KIT_EDITS_OF_VIEWS: Readonly<Record<string, KitEdit>> = {
  "set what a move does on the stage": (kit, choose) => {
    const at = indexIn(kit.moves, choose);
    return at < 0 ? undefined : writeAt(kit, ["moves", at, "effect"], { strike: choose.upTo(9) });
  },
  "add a moving beam": kit =>
    (kit.stage as { kind?: unknown } | undefined)?.kind === "runner" ? addBeam(kit) : undefined,
  "set one of several effects of a move": (kit, choose) => {
    const at = indexIn(kit.moves, choose);
    const kinds = kindsOn(kit);
    return at < 0
      ? undefined
      : setEffect(kit, at, choose.upTo(2), kinds[choose.upTo(kinds.length)]?.[0] ?? "");
  },
  "set a timeline": (kit, choose) => {
    const at = indexIn(kit.moves, choose);
    const frames = { startup: `${choose.upTo(9)}f`, active: "3f", recovery: "8f" };
    return at < 0 ? undefined : writeAt(kit, ["moves", at, "frames"], frames);
  },
  "set two numbers at once": (kit, choose) => {
    const at = indexIn(kit.moves, choose);
    if (at < 0) return undefined;
    return writeAt(
      writeAt(kit, ["moves", at, "buffer"], `${choose.upTo(9)}f`),
      ["moves", at, "cooldown"],
      "4f",
    );
  },
  "take a clause out": (kit, choose) => {
    const at = indexIn(kit.moves, choose);
    return kit.moves?.[at]?.buffer === undefined ? undefined : takeOut(kit, ["moves", at, "buffer"]);
  },
  "draw a curve": (kit, choose) => {
    const at = kit.patterns.findIndex(({ kind }) => kind === "charge");
    const curve = choose.of(["linear", "ease-in", "cubic-bezier(0.1, 0.2, 0.3, 1)"]);
    return at < 0 ? undefined : writeAt(kit, ["patterns", at, "curve"], curve);
  },
  "close a dead stretch": (kit, choose) => {
    const rules = compileRules(kit);
    if (!rules.ok) return undefined;
    const at = indexIn(kit.controls, choose);
    const stretches = at < 0 ? [] : listStretches(rules.value.program, at, 60);
    const closings = stretches.flatMap(stretch => closeStretch(kit, stretch, kit.controls[at]!.id));
    return choose.of(closings)?.edit(kit);
  },
  "mirror a stick": (kit, choose) => {
    const [at, gate] = [indexIn(kit.sticks, choose), choose.of(kit.gates ?? [])];
    return at < 0 || !gate ? undefined : writeAt(kit, ["sticks", at, "mirrorWhen"], gate.id);
  },
  "choose a stick's opposites": (kit, choose) => {
    const at = indexIn(kit.sticks, choose);
    return at < 0
      ? undefined
      : writeAt(kit, ["sticks", at, "opposites"], choose.of(["neutral", "latest", "first"]));
  },
  "start in a mode": (kit, choose) => {
    const mode = choose.of(kit.modes ?? []);
    return mode && { ...kit, start: mode.id };
  },
  "rename a control": (kit, choose) =>
    writeAt(kit, ["controls", indexIn(kit.controls, choose), "name"], `Button ${choose.upTo(99)}`),
  "change the stage's numbers": (kit, choose) => {
    const numbers = { runner: ["speed", 5], duel: ["stun", "20f"], ropes: ["seed", 7] } as const;
    const [field, value] = numbers[stageOf(kit)?.kind ?? "runner"];
    return kit.stage && choose.upTo(1) === 1 ? writeAt(kit, ["stage", field], value) : undefined;
  },
  "add an act of the clockwork": kit => {
    const stage = stageOf(kit);
    if (stage?.kind !== "duel") return undefined;
    return writeAt(kit, ["stage", "script"], [...stage.script, { at: "900f", does: "strike" }]);
  },
  "name a place of the level": kit => {
    const stage = stageOf(kit);
    if (stage?.kind !== "runner") return undefined;
    const letter = freshLetter(stage.zones ?? {});
    const { id, gates } = findGate(kit, `Place ${letter}`);
    return writeAt({ ...kit, gates }, ["stage", "zones"], { ...stage.zones, [letter!]: id });
  },
  "ease a rope": (kit, choose) => {
    const [stage, prompt] = [stageOf(kit), choose.of(kit.prompts ?? [])];
    if (stage?.kind !== "ropes" || !prompt) return undefined;
    const others = (stage.eases ?? []).filter(item => item.prompt !== prompt.id);
    return writeAt(kit, ["stage", "eases"], [...others, { prompt: prompt.id, times: 1.5 }]);
  },
};

function placeOf(kit: Kit, choose: Choice) {
  const list = choose.of(RULE_LISTS.filter(name => (kit[name]?.length ?? 0) > 0)) ?? "patterns";
  return { list, index: choose.upTo((kit[list]?.length ?? 1) - 1) };
}

const STARTER_EDITS = Object.fromEntries(
  STARTERS.map(starter => [
    `begin with ${starter.id}`,
    (kit: Kit, choose: Choice) => applyStarter(kit, starter, choose.of(kit.controls)?.id ?? "").kit,
  ]),
);

const RENAME_EDITS: Readonly<Record<string, AnyEdit>> = Object.fromEntries(
  ID_LISTS.map(list => [
    `change an id of ${list}`,
    (document: KitDocument, choose: Choice) => {
      const items: readonly { readonly id: string }[] = document.kit[list] ?? [];
      const item = choose.of(items);
      const all = [...items, ...(document.kit.sticks ?? [])];
      return item ? renameId(document, list, item.id, newId(`other ${choose.upTo(9)}`, all)) : document;
    },
  ]),
);

const at = (take: Take, choose: Choice) => choose.upTo(Math.floor(take.frames) - 2);
const stretchOf = (take: Take, choose: Choice) => {
  const from = at(take, choose);
  return [from, from + 1 + choose.upTo(10)] as const;
};

const OTHER_EDITS: Readonly<Record<string, AnyEdit>> = {
  "change the rate, keeping frames": onKit((kit, choose) =>
    changeRate(kit, choose.of([30, 60, 120])!, "frames"),
  ),
  "change the rate, keeping time": (document, choose) => {
    const rate = choose.of([30, 60, 120])!;
    const { kit } = document;
    const checks = document.checks.map(check => changeCheckRate(check, kit.rate, rate));
    return { ...document, kit: changeRate(kit, rate, "time"), checks };
  },
  "rename a take": onTake((take, choose) => ({ ...take, name: `Take ${choose.upTo(99)}` })),
  "say who played a take": onTake((take, choose) => ({ ...take, player: `Player ${choose.upTo(9)}` })),
  "say on what a take was played": onTake(take => ({ ...take, device: "Pad" })),
  "write a note on a take": onTake((take, choose) => ({ ...take, note: `Note ${choose.upTo(9)}` })),
  "paint a control": onTake((take, choose, { kit }) => {
    const [from, to] = stretchOf(take, choose);
    return paintControl(take, choose.of(kit.controls)?.id ?? "a", from, to, choose.upTo(1) === 1);
  }),
  "mark a press as not meant, or as meant again": onTake((take, choose, { kit }) => {
    const compiled = compileRules(kit);
    if (!compiled.ok) return take;
    const { program } = compiled.value;
    const presses = program.controls.flatMap(({ id }, control) =>
      (ownValue(take.lanes, id) ?? []).map(
        ([x]) => [control, Math.ceil((x * kit.rate) / take.rate)] as const,
      ),
    );
    const press = choose.of(presses);
    return press ? toggleUnmeant(program, take, ...press) : take;
  }),
  "paint a gate": onTake((take, choose, { kit }) => {
    const [from, to] = stretchOf(take, choose);
    const gate = choose.of(kit.gates ?? []);
    return gate ? paintGate(take, gate.id, from, to, choose.upTo(1) === 1) : take;
  }),
  "paint the speed": onTake((take, choose) => {
    const [from, to] = stretchOf(take, choose);
    return paintSpeed(take, from, to, choose.of([0, 50, 100, 200])!);
  }),
  "wipe a stretch": onTake((take, choose) => wipeStretch(take, ...stretchOf(take, choose))),
  "shift a stretch": onTake((take, choose) => shiftStretch(take, ...stretchOf(take, choose), choose.upTo(5))),
  "paste a stretch": onTake((take, choose) => {
    const clip = copyStretch(take, ...stretchOf(take, choose));
    return pasteClip(take, clip, at(take, choose));
  }),
  "convert a take": onTake((take, choose) => convertTake(take, choose.of([30, 60, 120])!)),
  "copy a take": (document, choose) => {
    const take = choose.of(document.takes);
    const id = newId("copy", document.takes);
    return take
      ? { ...document, takes: [...document.takes, copyTake(take, id, `${take.name}, ${id}`)] }
      : document;
  },
  "delete a take": (document, choose) => ({
    ...document,
    takes: without(document.takes, choose.of(document.takes)),
  }),
  "keep a variant": onVariants((variants, choose, { kit }) => [
    ...variants,
    { id: newId("variant", variants), name: `Variant ${choose.upTo(9)}`, kit },
  ]),
  "forget a variant": onVariants((variants, choose) => without(variants, choose.of(variants))),
  "rename a variant": onVariants((variants, choose) => {
    const chosen = choose.of(variants);
    return variants.map(variant => (variant === chosen ? { ...variant, name: "Renamed" } : variant));
  }),
  "take up a variant": (document, choose) => {
    const variant = choose.of(document.variants);
    const { id, name } = document.kit;
    return variant ? { ...document, kit: { ...variant.kit, id, name } } : document;
  },
  "keep a layout": onLayouts((layouts, choose, { kit }) => [
    ...layouts,
    layoutOf(kit, newId("layout", layouts), `Layout ${choose.upTo(9)}`),
  ]),
  "remove a layout": onLayouts((layouts, choose) => without(layouts, choose.of(layouts))),
  "apply a layout": (document, choose) => {
    const layout = choose.of(document.layouts);
    return layout ? { ...document, kit: applyLayout(document.kit, layout) } : document;
  },
  "add a check": onChecks((checks, choose, { kit }) => [
    ...checks,
    {
      id: newId("check", checks),
      name: `Check ${choose.upTo(99)}`,
      on: "*",
      answers: choose.of(kit.controls)?.id ?? "a",
    } as Check,
  ]),
  "remove a check": onChecks((checks, choose) => without(checks, choose.of(checks))),
  "switch a check off": onChecks((checks, choose) => {
    const chosen = choose.of(checks);
    return checks.map(check => (check === chosen ? { ...check, off: true } : check));
  }),
  "change a check": onChecks((checks, choose, { kit, takes }) => {
    const chosen = choose.of(checks);
    const offer =
      chosen &&
      choose.of(
        offerCheck(
          chosen,
          kit,
          takes.map(({ id }) => id),
        ),
      );
    return offer ? checks.map(check => (check === chosen ? offer.becomes : check)) : checks;
  }),
  "accept what a check found": onChecks((checks, choose) => {
    const chosen = choose.of(checks.filter(check => "happens" in check));
    return checks.map(check =>
      check === chosen ? ({ ...check, at: `${choose.upTo(99)}f` } as Check) : check,
    );
  }),
  "set the checks aside": onChecks(() => []),
  "rename a layout": onLayouts((layouts, choose) => {
    const chosen = choose.of(layouts);
    return layouts.map(layout =>
      layout === chosen ? { ...layout, name: `Keys ${choose.upTo(9)}` } : layout,
    );
  }),
  "lay the keys for one hand": (document, choose) => {
    const layouts = [
      ...document.layouts,
      layoutOf(document.kit, newId("one-hand", document.layouts), "One hand"),
    ];
    return { ...document, layouts, kit: addAssist(document.kit, choose.of(ASSIST_STARTERS)!) };
  },
  "take a file in": (document, choose) => {
    const takes = document.takes.slice(0, 2).map((take, k) => ({
      ...take,
      id: newId(`in ${k}`, document.takes),
      name: `Taken in ${choose.upTo(99)} ${k}`,
    }));
    const layouts = [...document.layouts, layoutOf(document.kit, newId("in", document.layouts), "Taken in")];
    return { ...document, takes: [...document.takes, ...takes], layouts };
  },
};

/** Every kind of edit, by its effect: each screen makes its changes through one of these. */
export const EVERY_EDIT: Readonly<Record<string, AnyEdit>> = {
  ...Object.fromEntries(
    Object.entries({ ...KIT_EDITS, ...KIT_EDITS_OF_VIEWS, ...STARTER_EDITS }).map(([name, edit]) => [
      name,
      onKit(edit),
    ]),
  ),
  ...RENAME_EDITS,
  ...OTHER_EDITS,
};
