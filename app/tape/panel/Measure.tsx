import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { useStore } from "zustand";
import { formatMs } from "#core";
import { Button } from "../../ui/Button";
import { actOnStretch, type StretchAct } from "../hand/tapeActions";
import { tapeLook } from "../tapeLook";

const STRETCH_ACTS: readonly (readonly [StretchAct, string])[] = [
  ["cut", "Cut (X)"],
  ["copy", "Copy (C)"],
  ["paste", "Paste at the playhead (V)"],
  ["earlier", "A frame earlier (,)"],
  ["later", "A frame later (.)"],
  ["repeat", "Repeat after itself (R)"],
  ["wipe", "Wipe (Delete)"],
];

/** The stretch that is measured: how long it is, looped or not, and how to let it go. */
export function Measure({ rateHz }: { rateHz: number }) {
  const { stretch, isLooping } = useStore(tapeLook);
  if (!stretch) return null;
  const frames = stretch.to - stretch.from;
  return (
    <span className="flex items-center gap-1 whitespace-nowrap" data-testid="measure">
      <span className="font-mono">
        {stretch.from}–{stretch.to}: <b>{frames}f</b> {formatMs(frames, rateHz)}
      </span>
      <Button
        look="quiet"
        aria-pressed={isLooping}
        onClick={() => tapeLook.setState({ isLooping: !isLooping })}
      >
        {isLooping ? "Looping" : "Loop"}
      </Button>
      <Menu>
        <MenuButton className="px-2 py-1 text-moss underline-offset-4 hover:underline">Edit</MenuButton>
        <MenuItems
          anchor="top end"
          className="z-30 rounded-stone border border-line bg-leaf p-1 text-sm shadow-lg focus:outline-none"
        >
          {STRETCH_ACTS.map(([act, words]) => (
            <MenuItem key={act}>
              <button
                type="button"
                className="block w-full rounded-xl px-3 py-1.5 text-left data-focus:bg-sand"
                onClick={() => actOnStretch(act)}
              >
                {words}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
      <Button
        look="quiet"
        aria-label="Let the stretch go"
        onClick={() => tapeLook.setState({ stretch: undefined, isLooping: false })}
      >
        ×
      </Button>
    </span>
  );
}
