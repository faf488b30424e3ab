import { cutLetters } from "#core";
import { useState } from "react";
import { freshId } from "../edits/freshId";
import { renameId, whyNotId, type IdList } from "../edits/renameId";
import { Button } from "../ui/Button";
import { TextStone } from "../ui/TextStone";
import { useDocument, useWorkbench } from "../document/workbenchContext";

/** The generated id of a new control without a name. */
const MADE_ID = /^control(-\d+)?$/;

/** The editable id used in exported files, with an offer to match the name. All references are updated. */
export function IdStone({
  list,
  id,
  name,
  isOffer = false,
  onRenamed,
}: {
  list: IdList;
  id: string;
  name: string;
  /** Shown only for an id generated before the control had a name, such as "control-1" after a rename. */
  isOffer?: boolean;
  onRenamed?: (id: string) => void;
}) {
  const workbench = useWorkbench();
  const kit = useDocument(state => state.kit);
  const [trouble, setTrouble] = useState("");
  if (!kit) return null;
  const rename = (to: string) => {
    const why = whyNotId(kit, list, id, to);
    setTrouble(why);
    if (why !== "" || to === id) return;
    if (workbench.edit(`gave ${name} the id ${to}`, document => renameId(document, list, id, to)))
      onRenamed?.(to);
  };
  const taken = new Set([...kit.controls, ...(kit.sticks ?? []), ...(kit[list] ?? [])].map(item => item.id));
  taken.delete(id);
  const fitting = freshId(name, taken);
  if (isOffer && (fitting === id || !MADE_ID.test(id))) return null;
  return (
    <span className="inline-flex flex-wrap items-center gap-x-1 text-sm text-soft">
      export name:{" "}
      <span className="font-mono">
        <TextStone label={`Id of ${name}`} value={id} onChange={rename} />
      </span>
      {fitting !== id && (
        <Button look="quiet" title={`use ${fitting}`} onClick={() => rename(fitting)}>
          use {cutLetters(fitting, 28)}
        </Button>
      )}
      {trouble !== "" && (
        <span role="alert" className="text-foxglove">
          {trouble}
        </span>
      )}
    </span>
  );
}
