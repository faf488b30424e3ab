import { listChanges, type Kit } from "#core";
import { formatChanges } from "../parts/model/changeWords";
import { ListInParts } from "./ListInParts";

/** The number of sentences that are shown first, and with each request for more. */
const PART = 30;
/** Parts of a kit that are not rules: other names and other assists change nothing that is played. */
const NOT_RULES: ReadonlySet<string | number> = new Set(["name", "id", "assists"]);

/** The changes that lead from one kit to another, a sentence for each rule; `none` is shown without changes. */
export function ChangeList({ old, kit, label, none }: { old: Kit; kit: Kit; label: string; none: string }) {
  const changes = listChanges(old, kit).filter(({ path }) => !NOT_RULES.has(path[0]!));
  const sentences = formatChanges(old, kit, changes);
  if (sentences.length === 0) return <p className="text-soft">{none}</p>;
  return <ListInParts items={sentences.map(sentence => () => sentence)} part={PART} label={label} />;
}
