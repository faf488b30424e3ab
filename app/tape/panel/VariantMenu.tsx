import { memo } from "react";
import { Flap } from "../../ui/Flap";
import { nanoid } from "nanoid";
import { Button } from "../../ui/Button";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useTape, useTapeLook } from "../hand/context";
import { useTakeAway } from "../../document/useTakeAway";

function freshName(names: readonly string[]): string {
  let n = names.length + 1;
  while (names.includes(`Variant ${n}`)) n++;
  return `Variant ${n}`;
}

/** The variants of the rules: stored under a name, shown on the tape for comparison, restored, or deleted. */
export const VariantMenu = memo(function VariantMenu() {
  const workbench = useWorkbench();
  const { look } = useTape();
  const takeAway = useTakeAway();
  const variants = useDocument(state => state.variants);
  const now = useDocument(state => state.variants.find(variant => variant.kit === state.kit)?.id);
  const laidOver = useTapeLook(state => state.laidOver);
  const over = variants.find(variant => variant.id === laidOver);
  const keep = () => {
    const id = nanoid(8);
    workbench.keepVariant(id, freshName(variants.map(variant => variant.name)));
    look.setState({ laidOver: id });
  };
  const forget = (id: string, name: string) => takeAway(`${name} is forgotten.`, workbench.removeVariant(id));
  return (
    <Flap
      word={over ? `Over it: ${over.name}` : "Variants"}
      wordLook="max-w-52 truncate px-2 py-1 whitespace-nowrap text-moss underline-offset-4 hover:underline"
      anchor="top end"
      panelLook="w-[420px] p-3"
    >
      {() => (
        <>
          <p className="mb-2 text-soft">
            A variant keeps the present rules. When compared, its results are drawn at the foot of each row.
          </p>
          <ul>
            {variants.map(variant => (
              <li key={variant.id} className="flex items-center gap-1 border-t border-line py-1">
                <span className="grow truncate">
                  {variant.name}
                  {variant.id === now && <span className="text-soft"> · as now</span>}
                </span>
                <Button
                  look="quiet"
                  aria-pressed={variant.id === laidOver}
                  aria-label={`${variant.id === laidOver ? "Stop comparing" : "Compare"} ${variant.name}`}
                  onClick={() =>
                    look.setState({ laidOver: variant.id === laidOver ? undefined : variant.id })
                  }
                >
                  {variant.id === laidOver ? "Stop comparing" : "Compare"}
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Restore ${variant.name}`}
                  disabled={variant.id === now}
                  onClick={() => workbench.takeUpVariant(variant.id)}
                >
                  Restore
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Delete ${variant.name}`}
                  onClick={() => forget(variant.id, variant.name)}
                >
                  Delete
                </Button>
              </li>
            ))}
          </ul>
          <p className="mt-2">
            <Button onClick={keep}>Keep these rules as a variant</Button>
          </p>
        </>
      )}
    </Flap>
  );
});
