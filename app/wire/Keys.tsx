import type { SVGProps } from "react";
import { useStore } from "zustand";
import type { Kit } from "#core";
import { cutLetters } from "#core";
import { formatCode } from "../input/codes";
import { keyLabels } from "../input/keyLabels";
import { BOARD_SIZE, layoutBoard, PAD_SPOTS } from "./model/boards";
import { Layouts } from "./Layouts";
import { Together } from "./Together";
import { useDocument } from "../document/workbenchContext";
import { usePadState } from "../input/context";

const KEY = 34;
const GAP = 3;
const KEYS = layoutBoard();

/** Returns the controls a code plays, alone or with others. */
function playedBy(kit: Kit, code: string): string[] {
  return kit.controls
    .filter(control => control.bindings.some(binding => binding.includes(code)))
    .map(control => control.name);
}

interface BoardProps {
  readonly kit: Kit;
  readonly chosen: string | undefined;
  readonly onChoose: (code: string) => void;
}

function lookOf(isDown: boolean, isBound: boolean, isClash: boolean): string {
  if (isDown) return "fill-bark stroke-bark";
  if (isClash) return "fill-leaf stroke-foxglove";
  return isBound ? "fill-fern stroke-moss" : "fill-leaf stroke-line";
}

/** The room for a text beside the left edge of a key, and the mean width of its letters; units of the drawing. */
const TEXT_LEFT = 5;
const LETTER = 4.9;
const roomOn = (width: number) => width * KEY - GAP - TEXT_LEFT;

/** Returns the number of letters that fit on a key of a width, in key widths. */
const lettersIn = (width: number) => Math.floor(roomOn(width) / LETTER);

/** The names of the controls on a key: cut where they are too long, and drawn narrower to show one letter more. */
function PlayedName({ words, width, ...place }: { words: string; width: number } & SVGProps<SVGTextElement>) {
  const most = lettersIn(width) + 1;
  const narrow = words.length >= most ? { textLength: roomOn(width), lengthAdjust: "spacingAndGlyphs" } : {};
  return (
    <text {...place} {...narrow}>
      {cutLetters(words, most)}
    </text>
  );
}

/** The drawn keyboard: each key shows what it plays; a selected key shows more beside. */
function KeyBoard({ kit, chosen, onChoose }: BoardProps) {
  const down = usePadState(state => state.codesDown);
  useStore(keyLabels);
  return (
    <svg
      viewBox={`0 0 ${BOARD_SIZE.width * KEY} ${BOARD_SIZE.height * KEY}`}
      className="w-full max-w-[720px]"
      role="group"
      aria-label="Keyboard"
    >
      {KEYS.map(key => {
        const played = playedBy(kit, key.code);
        const isDown = down.includes(key.code);
        const label = formatCode(key.code).replace(/^(left|right) /, "");
        const words = played.join(", ");
        return (
          <g
            key={key.code}
            role="button"
            tabIndex={played.length > 0 ? 0 : -1}
            aria-label={`${formatCode(key.code)} ${words || "plays nothing"}`}
            aria-pressed={chosen === key.code}
            className="cursor-pointer"
            onClick={() => onChoose(key.code)}
            onKeyDown={event => event.key === "Enter" && onChoose(key.code)}
          >
            {words && <title>{words}</title>}
            <rect
              x={key.x * KEY + GAP / 2}
              y={key.y * KEY + GAP / 2}
              width={key.width * KEY - GAP}
              height={KEY - GAP}
              rx="7"
              strokeWidth={chosen === key.code ? 3 : 1.5}
              className={lookOf(isDown, played.length > 0, played.length > 1)}
            />
            <text
              x={key.x * KEY + TEXT_LEFT}
              y={key.y * KEY + 14}
              className={`text-[10px] ${isDown ? "fill-leaf" : played.length > 0 ? "fill-ink" : "fill-soft"}`}
            >
              {`${label.slice(0, lettersIn(key.width))} `}
            </text>
            {played.length > 0 && (
              <PlayedName
                words={words}
                width={key.width}
                x={key.x * KEY + TEXT_LEFT}
                y={key.y * KEY + 27}
                className={`text-[9px] font-semibold ${isDown ? "fill-leaf" : "fill-ink"}`}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}

/** A pad in the standard mapping, drawn the same way. */
function PadBoard({ kit, chosen, onChoose }: BoardProps) {
  const down = usePadState(state => state.codesDown);
  return (
    <svg viewBox="-2 -2 104 84" className="w-[220px] shrink-0" role="group" aria-label="Pad">
      <path
        d="M14 14h72q14 0 14 22l-2 30q-2 14 -10 14q-6 0 -12 -12l-4 -4h-44l-4 4q-6 12 -12 12q-8 0 -10 -14l-2 -30q0 -22 14 -22z"
        className="fill-paper stroke-line"
        strokeWidth="1.2"
      />
      {PAD_SPOTS.map(spot => {
        const played = playedBy(kit, spot.code);
        return (
          <g
            key={spot.code}
            role="button"
            tabIndex={played.length > 0 ? 0 : -1}
            aria-label={`${formatCode(spot.code)}: ${played.join(", ") || "plays nothing"}`}
            aria-pressed={chosen === spot.code}
            className="cursor-pointer"
            onClick={() => onChoose(spot.code)}
            onKeyDown={event => event.key === "Enter" && onChoose(spot.code)}
          >
            <title>{`${formatCode(spot.code)}: ${played.join(", ") || "plays nothing"}`}</title>
            <circle
              cx={spot.x}
              cy={spot.y}
              r={spot.r}
              strokeWidth={chosen === spot.code ? 1.6 : 0.8}
              className={lookOf(down.includes(spot.code), played.length > 0, played.length > 1)}
            />
          </g>
        );
      })}
    </svg>
  );
}

/**
 * The bindings in both directions: every control with its keys, every key with its controls; layouts, and key
 * combinations.
 */
export function Keys({ chosen, onChoose }: { chosen: string | undefined; onChoose: (code: string) => void }) {
  const kit = useDocument(state => state.kit);
  if (!kit) return null;
  return (
    <section aria-label="Keys" className="min-h-0 grow overflow-auto px-6 py-4">
      <h1 className="font-serif text-2xl">What is on this key?</h1>
      <p className="mb-3 text-sm text-soft">
        Filled keys play something, those held are dark, keys with two controls have a pink edge. Choose one
        to see which rules use it.
      </p>
      <div className="flex flex-wrap items-start gap-5">
        <KeyBoard kit={kit} chosen={chosen} onChoose={onChoose} />
        <PadBoard kit={kit} chosen={chosen} onChoose={onChoose} />
        <div className="min-w-64 grow">
          <Layouts kit={kit} />
        </div>
      </div>
      <Together kit={kit} />
    </section>
  );
}
