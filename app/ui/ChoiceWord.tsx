import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";

export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly hint?: string;
}

/** A word in a sentence that opens a menu of alternatives, each with a line on its effect. */
export function ChoiceWord({
  label,
  value,
  choices,
  onChoose,
  placeholder,
  isTight = false,
}: {
  label: string;
  value: string;
  choices: readonly Choice[];
  onChoose: (value: string) => void;
  /** Shown while the value is none of the choices. */
  placeholder?: string;
  /** Truncates a long word to the available room; in a sentence it wraps. */
  isTight?: boolean;
}) {
  const current = choices.find(choice => choice.value === value);
  return (
    <Menu>
      <MenuButton
        aria-label={`${label}: ${current?.label ?? placeholder ?? value}`}
        className={`border-b-2 border-fern italic hover:border-moss data-open:border-moss ${isTight ? "min-w-0 truncate pr-0.5" : "max-w-full text-left wrap-break-word whitespace-normal"}`}
        title={isTight ? (current?.label ?? value) : undefined}
      >
        {current?.label ?? placeholder ?? value}
      </MenuButton>
      <MenuItems
        modal={false}
        anchor="bottom start"
        className="z-30 mt-1 max-h-80 max-w-[calc(100vw-1rem)] min-w-56 overflow-auto rounded-stone border border-line bg-leaf p-1 font-sans text-sm shadow-lg focus:outline-none"
      >
        {choices.map(choice => (
          <MenuItem key={choice.value}>
            <button
              type="button"
              className="block w-full rounded-xl px-3 py-2 text-left data-focus:bg-sand"
              onClick={() => onChoose(choice.value)}
            >
              <span className={choice.value === value ? "font-semibold" : ""}>{choice.label}</span>
              {choice.hint && <span className="block text-soft">{choice.hint}</span>}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
