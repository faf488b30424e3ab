import { useEffect, useEffectEvent } from "react";
import { useSearchParams } from "react-router";
import { useWorkbench } from "../document/workbenchContext";
import { copyRules, pasteRules } from "../edits/ruleClips";
import { keyOfRule, type RulePlace } from "../edits/ruleEdits";
import { isTextField } from "../input/typing";
import { useNotices } from "../ui/noticesContext";
import { countWords } from "#core";
import { describePasted, formatClip, readClip } from "./model/clipText";

/** Copies rules of the open kit to the clipboard, and pastes rules from it as one edit; both report what they did. */
export function useRuleClips(): {
  readonly copy: (places: readonly RulePlace[]) => void;
  readonly paste: () => void;
  /** Pastes rules from a text. */
  readonly pasteText: (text: string) => void;
  /** Copies rules as the data of a copy event. */
  readonly copyInto: (data: DataTransfer, places: readonly RulePlace[]) => void;
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
  const refuse = (cure: string) =>
    notify({ tone: "trouble", title: `The browser keeps its clipboard closed: ${cure}.`, details: [] });
  const reportCopied = (count: number) =>
    notify({
      tone: "plain",
      title: `${countWords(count, "rule")} copied with everything referred to. Paste on Shape of any kit.`,
      details: [],
    });
  // Without a secure connection there is no clipboard at all: that throws, too.
  const copy = async (places: readonly RulePlace[]) => {
    try {
      await navigator.clipboard.writeText(textOf(places));
      reportCopied(places.length);
    } catch {
      refuse("open a rule and press Ctrl+C");
    }
  };
  const paste = async () => {
    let text: string;
    try {
      text = await navigator.clipboard.readText();
    } catch {
      return refuse("press Ctrl+V");
    }
    pasteText(text);
  };
  return {
    copy: places => void copy(places),
    paste: () => void paste(),
    pasteText,
    copyInto: (data, places) => {
      data.setData("text/plain", textOf(places));
      reportCopied(places.length);
    },
  };
}

/** Lets the copy and paste keys act on rules while no text is selected or typed. `open`: the open rule. */
export function useClipKeys(open: RulePlace | undefined): void {
  const { copyInto, pasteText } = useRuleClips();
  const onCopy = useEffectEvent((event: ClipboardEvent) => {
    if (!open || isTextField(event.target) || getSelection()?.isCollapsed === false) return;
    if (event.clipboardData) copyInto(event.clipboardData, [open]);
    event.preventDefault();
  });
  const onPaste = useEffectEvent((event: ClipboardEvent) => {
    if (isTextField(event.target)) return;
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
