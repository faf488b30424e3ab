import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";

/** One action of a menu. */
export interface MenuAct {
  readonly words: string;
  readonly run: () => void;
}

/** A word that opens a menu of actions. */
export function ActMenu({ word, acts }: { word: string; acts: readonly MenuAct[] }) {
  return (
    <Menu>
      <MenuButton className="px-2 py-1 text-moss underline-offset-4 hover:underline">{word}</MenuButton>
      <MenuItems
        anchor="top end"
        className="z-30 rounded-stone border border-line bg-leaf p-1 text-sm shadow-lg focus:outline-none"
      >
        {acts.map(({ words, run }) => (
          <MenuItem key={words}>
            <button
              type="button"
              className="block w-full rounded-xl px-3 py-1.5 text-left data-focus:bg-sand"
              onClick={run}
            >
              {words}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
