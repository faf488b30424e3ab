import { nanoid } from "nanoid";
import { oneHandLayout, type Kit } from "#core";
import { addAssist } from "../edits/assistEdits";
import { useWorkbench } from "../document/workbenchContext";
import { Button } from "../ui/Button";

/**
 * Creates an assist for one hand: a layout of keys within its reach, stored among the layouts and applied
 * with the assist.
 */
export function OneHand({ kit }: { kit: Kit }) {
  const workbench = useWorkbench();
  const begin = (hand: "left" | "right") => {
    const name = hand === "left" ? "Left hand alone" : "Right hand alone";
    const layout = oneHandLayout(kit, hand, nanoid(8), name);
    workbench.edit(`assist ${name}`, document => ({
      ...document,
      kit: addAssist(document.kit, { name, layout: layout.id }),
      layouts: [...document.layouts, layout],
    }));
  };
  return (
    <span className="flex flex-wrap gap-2">
      <Button onClick={() => begin("left")}>
        <b>Left hand alone</b> <span className="text-soft">keys that the left hand reaches</span>
      </Button>
      <Button onClick={() => begin("right")}>
        <b>Right hand alone</b> <span className="text-soft">keys that the right hand reaches</span>
      </Button>
    </span>
  );
}
