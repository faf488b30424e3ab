import { Menu, MenuButton, MenuItem, MenuItems, type MenuItemsProps } from "@headlessui/react";

/** One action of a menu. */
export interface MenuAct {
  readonly words: string;
  readonly hint?: string;
  readonly run: () => void;
}

/** A word that opens a menu of actions. */
export function ActMenu({
  word,
  acts,
  label,
  anchor = "top end",
}: {
  word: string;
  acts: readonly MenuAct[];
  /** The accessible name, if it is another than the word. */
  label?: string;
  anchor?: NonNullable<MenuItemsProps["anchor"]>;
}) {
  return (
    <Menu>
      <MenuButton
        aria-label={label}
        className="px-2 py-1 whitespace-nowrap text-moss underline-offset-4 hover:underline"
      >
        {word}
      </MenuButton>
      <MenuItems
        modal={false}
        anchor={anchor}
        className="z-30 max-w-[calc(100vw-1rem)] overflow-auto rounded-stone border border-line bg-leaf p-1 text-sm shadow-lg focus:outline-none"
      >
        {acts.map(({ words, hint, run }) => (
          <MenuItem key={words}>
            <button
              type="button"
              className="block w-full rounded-xl px-3 py-1.5 text-left data-focus:bg-sand"
              onClick={run}
            >
              {words}
              {hint !== undefined && <span className="block text-soft">{hint}</span>}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
