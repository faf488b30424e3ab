import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { readKeyLabels } from "../input/keyLabels";
import { Clock } from "./Clock";
import { Figures } from "./Figures";
import { KeyCard } from "./KeyCard";
import { Keys } from "./Keys";
import { Modes } from "./Modes";
import { RawLog } from "./RawLog";
import { Scope } from "./Scope";
import { Sticks } from "./Sticks";
import { useDocument } from "../document/workbenchContext";
import { usePad } from "../input/context";

const PLACES = [
  { id: "scope", word: "Scope", line: "live input" },
  { id: "sticks", word: "Sticks", line: "directions" },
  { id: "keys", word: "Keys", line: "bindings" },
  { id: "modes", word: "Modes", line: "rules by mode" },
  { id: "clock", word: "Clock", line: "frame rate" },
  { id: "figures", word: "Figures", line: "input delay" },
] as const;

/** Wire: the live input, the bindings, and the modes. */
export function WireView() {
  const pad = usePad();
  const kit = useDocument(state => state.kit);
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<string | undefined>();
  useEffect(() => {
    pad.refreshPads();
    void readKeyLabels();
  }, [pad]);
  if (!kit) return null;
  const place = PLACES.find(item => item.id === search.get("wire"))?.id ?? "scope";
  const linkTo = (id: string) => {
    const next = new URLSearchParams(search);
    next.set("wire", id);
    return `?${next.toString()}`;
  };
  return (
    <div className="grid min-h-0 grow grid-cols-[132px_minmax(0,1fr)_312px] max-lg:grid-cols-[104px_minmax(0,1fr)_220px] narrow:block narrow:overflow-auto">
      <nav
        aria-label="Places in Wire"
        className="border-r border-line py-4 narrow:border-r-0 narrow:border-b narrow:py-0"
      >
        <ul className="narrow:flex narrow:overflow-x-auto">
          {PLACES.map(item => (
            <li key={item.id}>
              <Link
                to={linkTo(item.id)}
                preventScrollReset
                aria-current={item.id === place}
                className="block border-l-[3px] border-transparent px-4 py-1.5 text-sm leading-snug hover:bg-leaf narrow:border-b-[3px] narrow:border-l-0 aria-[current=true]:border-moss aria-[current=true]:bg-leaf"
              >
                <b>{item.word}</b>
                <span className="block text-soft narrow:hidden">{item.line}</span>
              </Link>
            </li>
          ))}
        </ul>
      </nav>
      <div className="flex min-h-0 flex-col">
        {place === "scope" && <Scope />}
        {place === "sticks" && <Sticks />}
        {place === "keys" && <Keys chosen={chosen} onChoose={setChosen} />}
        {place === "modes" && <Modes />}
        {place === "clock" && <Clock />}
        {place === "figures" && <Figures />}
      </div>
      <div className="flex min-h-0 flex-col border-l border-line narrow:border-t narrow:border-l-0">
        <KeyCard code={place === "keys" ? chosen : undefined} />
        <RawLog />
      </div>
    </div>
  );
}
