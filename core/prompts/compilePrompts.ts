import { fault, type PathStep } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { Prompt } from "../kit/schema";
import { compileControls } from "../patterns/compileParts";
import { NEVER, type PromptProgram } from "../program/program";
import type { PatternProgram } from "../patterns/kinds";

const OUTCOMES = new Set(["shown", "open", "ok", "failed"]);

function compileStart(prompt: Prompt, names: Names, path: readonly PathStep[]) {
  const start = {
    startsAtTicks: NEVER,
    startsOnGate: -1,
    startsAfterPrompt: -1,
    startsOn: "any" as PromptProgram["startsOn"],
  };
  const starts = prompt.starts;
  if ("at" in starts) return { ...start, startsAtTicks: names.atLeast(starts.at, 0) };
  if ("gate" in starts)
    return { ...start, startsOnGate: names.gate(starts.gate, [...path, "starts", "gate"]) };
  return {
    ...start,
    startsAfterPrompt: names.prompt(starts.prompt, [...path, "starts", "prompt"]),
    startsOn: starts.on,
  };
}

function compilePrompt(
  prompt: Prompt,
  p: number,
  names: Names,
  patterns: readonly PatternProgram[],
): PromptProgram {
  const path = ["prompts", p] as const;
  if (prompt.ask.length === 0) names.issues.push(fault("ask-nothing", [...path, "ask"]));
  const asked = prompt.ask.map((id, k) => names.pattern(id, [...path, "ask", k])).filter(place => place >= 0);
  const wanted = asked.filter(place => !patterns[place]!.isOff);
  const ask = [...new Set(wanted)].sort((a, b) => a - b);
  const drawFrom = prompt.draw === undefined ? [] : wanted;
  const isEarlyWrong = prompt.early === "fail";
  prompt.grades?.forEach((grade, k) => {
    if (OUTCOMES.has(grade.name))
      names.issues.push(fault("grade-name", [...path, "grades", k, "name"], { name: grade.name }));
  });
  return {
    id: prompt.id,
    isOff: prompt.off ?? false,
    isReal: prompt.clock === "real",
    activeIn: names.activeIn(prompt.modes, path),
    ask,
    draw: prompt.draw ?? -1,
    drawFrom,
    ...compileStart(prompt, names, path),
    leadTicks: names.atLeast(prompt.lead, 0),
    windowTicks: names.atMost(prompt.window, 0),
    targetTicks: names.atLeast(prompt.target, 0),
    grades: (prompt.grades ?? []).map(grade => ({
      name: grade.name,
      earlyTicks: names.atMost(grade.early ?? grade.within, 0),
      lateTicks: names.atMost(grade.late ?? grade.within, 0),
    })),
    early: prompt.early ?? "ignore",
    earlyControls: isEarlyWrong ? [...new Set(ask.flatMap(place => patterns[place]!.controls))] : [],
    earlyControlsOf: isEarlyWrong ? drawFrom.map(place => patterns[place]!.controls) : [],
    failsWrong: prompt.wrong === "fail",
    wrongControls:
      prompt.wrong === "fail" ? compileControls(prompt.wrongOn, names, [...path, "wrongOn"]) : [],
    captures: compileControls(prompt.captures, names, [...path, "captures"]),
    opensGate: prompt.opens === undefined ? -1 : names.openable(prompt.opens, [...path, "opens"], "opened"),
  };
}

/** Compiles every prompt, in kit order. A disabled prompt is skipped at run time by `isOff`. */
export function compilePrompts(names: Names, patterns: readonly PatternProgram[]): PromptProgram[] {
  return (names.kit.prompts ?? []).map((prompt, p) => compilePrompt(prompt, p, names, patterns));
}
