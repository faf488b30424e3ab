import { memo } from "react";
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { nanoid } from "nanoid";
import { useStore } from "zustand";
import { say } from "../../ui/notices";
import { keepVariant, removeVariant, takeUpVariant, undo } from "../../document/workbench";
import { useWorkbench } from "../../document/useWorkbench";
import { Button } from "../../ui/Button";
import { tapeLook } from "../tapeLook";

function freshName(names: readonly string[]): string {
  let n = names.length + 1;
  while (names.includes(`Variant ${n}`)) n++;
  return `Variant ${n}`;
}

/** The rules as they once were: kept under a name, laid over the tape, taken up again, or forgotten. */
export const VariantMenu = memo(function VariantMenu() {
  const variants = useWorkbench(state => state.variants);
  const now = useWorkbench(state => state.variants.find(variant => variant.kit === state.kit)?.id);
  const laidOver = useStore(tapeLook, look => look.laidOver);
  const over = variants.find(variant => variant.id === laidOver);
  const keep = () => {
    const id = nanoid(8);
    keepVariant(id, freshName(variants.map(variant => variant.name)));
    tapeLook.setState({ laidOver: id });
  };
  const forget = (id: string, name: string) => {
    removeVariant(id);
    say({
      tone: "plain",
      title: `${name} is forgotten.`,
      details: [],
      action: { label: "Put it back", run: undo },
    });
  };
  return (
    <Popover>
      <PopoverButton className="px-2 py-1 whitespace-nowrap text-moss underline-offset-4 hover:underline">
        {over ? `Over it: ${over.name}` : "Variants"}
      </PopoverButton>
      <PopoverPanel
        anchor="top end"
        className="z-30 w-[420px] rounded-stone border border-line bg-leaf p-3 text-sm shadow-lg"
      >
        <p className="mb-2 text-soft">
          A variant keeps the rules as they stand. Laid over, what it makes of the take runs along the foot of
          each row.
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
                aria-label={`${variant.id === laidOver ? "Lift off" : "Lay over"} ${variant.name}`}
                onClick={() =>
                  tapeLook.setState({ laidOver: variant.id === laidOver ? undefined : variant.id })
                }
              >
                {variant.id === laidOver ? "Lift off" : "Lay over"}
              </Button>
              <Button
                look="quiet"
                aria-label={`Take up ${variant.name}`}
                disabled={variant.id === now}
                onClick={() => takeUpVariant(variant.id)}
              >
                Take up
              </Button>
              <Button
                look="quiet"
                aria-label={`Forget ${variant.name}`}
                onClick={() => forget(variant.id, variant.name)}
              >
                Forget
              </Button>
            </li>
          ))}
        </ul>
        <p className="mt-2">
          <Button onClick={keep}>Keep these rules as a variant</Button>
        </p>
      </PopoverPanel>
    </Popover>
  );
});
