import { useEffect, useEffectEvent } from "react";
import { useSearchParams } from "react-router";
import { useWorkbench } from "../document/workbenchContext";
import { copyRules, pasteRules } from "../edits/ruleClips";
import { keyOfRule, type RulePlace } from "../edits/ruleEdits";
import { useNotices } from "../ui/noticesContext";
import { countWords } from "#core";
import { describePasted, formatClip, readClip } from "./model/clipText";

const isText = (target: EventTarget | null) =>
  target instanceof Element && target.closest("input, textarea, [contenteditable]") !== null;

/** Copies rules of the open kit to the clipboard, and pastes rules from it as one edit; both report what they did. */
export function useRuleClips(): {
  readonly copy: (places: readonly RulePlace[]) => void;
  readonly paste: () => void;
  /** Pastes rules from a text. */
  readonly pasteText: (text: string) => void;
  /** Returns rules as the text to be copied. */
  readonly textOf: (places: readonly RulePlace[]) => string;
} {
  const workbench = useWorkbench();
  const { notify } = useNotices();
  const [, setSearch] = useSearchParams();
  const textOf = (places: readonly RulePlace[]) => {
    const { kit } = workbench.getState();
    return kit ? formatClip(copyRules(kit, places)) : "";
  };
  const pasteText = (text: string) => {
    const { kit } = workbench.getState();
    if (!kit) return;
    const read = readClip(text);
    if (!("clip" in read)) return notify({ tone: "trouble", title: read.trouble, details: read.details });
    const pasted = pasteRules(kit, read.clip);
    if (pasted.added.length > 0 && !workbench.editKit("pasted rules", () => pasted.kit)) return;
    notify({ tone: "plain", ...describePasted(pasted) });
    const last = pasted.added.at(-1);
    if (!last) return;
    const index = (pasted.kit[last.list] ?? []).findIndex(({ id }) => id === last.id);
    setSearch(search => {
      search.set("rule", keyOfRule(pasted.kit, { list: last.list, index }));
      return search;
    });
  };
  const refuse = (shown: string) => () =>
    notify({
      tone: "trouble",
      title: `The browser keeps its clipboard closed: press ${shown} instead.`,
      details: [],
    });
  return {
    textOf,
    pasteText,
    copy: places =>
      void navigator.clipboard.writeText(textOf(places)).then(
        () =>
          notify({
            tone: "plain",
            title: `${countWords(places.length, "rule")} copied, with all that it refers to. Paste on Shape of any kit.`,
            details: [],
          }),
        refuse("Ctrl+C"),
      ),
    paste: () => void navigator.clipboard.readText().then(pasteText, refuse("Ctrl+V")),
  };
}

/** Lets the copy and paste keys act on rules while no text is selected or typed. `open`: the open rule. */
export function useClipKeys(open: RulePlace | undefined): void {
  const { textOf, pasteText } = useRuleClips();
  const onCopy = useEffectEvent((event: ClipboardEvent) => {
    if (!open || isText(event.target) || getSelection()?.isCollapsed === false) return;
    event.clipboardData?.setData("text/plain", textOf([open]));
    event.preventDefault();
  });
  const onPaste = useEffectEvent((event: ClipboardEvent) => {
    if (isText(event.target)) return;
    event.preventDefault();
    pasteText(event.clipboardData?.getData("text/plain") ?? "");
  });
  useEffect(() => {
    document.addEventListener("copy", onCopy);
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("copy", onCopy);
      document.removeEventListener("paste", onPaste);
    };
  }, []);
}
