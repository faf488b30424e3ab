import { useDocument, useWorkbench } from "../document/workbenchContext";
import { PARTS, type PartList } from "../storage/records";
import { Button } from "../ui/Button";
import { useNotices } from "../ui/noticesContext";
import { SaveKitButton } from "./SaveKitButton";

/** The parts that can be removed from a kit so that a view that fails on them opens again; never takes. */
const REMOVABLE = ["checks", "variants", "layouts"] as const satisfies readonly PartList[];

/**
 * The actions after a part of the page failed: save the kit as a file, or save and remove parts stored beside
 * it, one step of undo each.
 */
export function RescueButtons() {
  const workbench = useWorkbench();
  const { notify } = useNotices();
  const kit = useDocument(state => state.kit);
  const checks = useDocument(state => state.checks);
  const variants = useDocument(state => state.variants);
  const layouts = useDocument(state => state.layouts);
  const lists = { checks, variants, layouts };
  const setAside = (list: (typeof REMOVABLE)[number]) => {
    notify.saveRaw(`${kit?.name ?? "kit"}, ${list}`, lists[list]);
    workbench.edit(`set its ${list} aside`, document => ({ ...document, [list]: [] }));
  };
  return (
    <>
      <SaveKitButton />
      {REMOVABLE.filter(list => lists[list].length > 0).map(list => (
        <Button key={list} look="quiet" onClick={() => setAside(list)}>
          Save each {PARTS[list].word} as a file and go on without
        </Button>
      ))}
    </>
  );
}
