import { useEffect, useMemo, useRef, useState } from "react";
import type { Kit } from "#core";
import { createSlugs, textFile, type OutFile } from "#handover";
import { useTape } from "../tape/hand/context";
import type { TapeLook } from "../tape/hand/tapeLook";
import { inksOf, paintPicture, pictureOf, toPng } from "../ui/svgPicture";
import { RuleMap } from "../shape/RuleMap";
import { useMapsReady } from "../shape/useMapsReady";
import { listRules } from "../shape/model/rules";

/** A picture, by its file name without extension. */
interface Drawn {
  readonly name: string;
  readonly svg: string;
}

function drawTape({ drawn }: TapeLook): Drawn[] {
  if (!drawn) return [];
  const { widthPx, heightPx } = drawn.view();
  if (widthPx === 0 || heightPx === 0) return [];
  return [{ name: "tape", svg: paintPicture(widthPx, heightPx, drawn.paintOn) }];
}

/** Draws the maps inside an element, each named after its rule. */
function drawMaps(room: HTMLElement, nameFor: (name: string) => string): Drawn[] {
  const inks = inksOf(room);
  return [...room.querySelectorAll<HTMLElement>("[data-rule]")].flatMap(place =>
    [...place.querySelectorAll<SVGSVGElement>("figure svg[viewBox]:not([aria-hidden])")].map(drawing => ({
      name: `map-${nameFor(place.dataset.rule!)}`,
      svg: pictureOf(drawing, place.dataset.rule!, inks),
    })),
  );
}

async function filesOf({ name, svg }: Drawn, faces: string): Promise<OutFile[]> {
  const bytes = await toPng(svg, faces);
  return [textFile(`${name}.svg`, svg, "image/svg+xml"), { name: `${name}.png`, bytes, type: "image/png" }];
}

async function makeAll(drawn: readonly Drawn[], faces: string): Promise<OutFile[]> {
  const files: OutFile[] = [];
  for (const one of drawn) files.push(...(await filesOf(one, faces)));
  return files;
}

/** The number of rules laid out at a time, so that a large kit does not block the page. */
const BATCH = 8;

/**
 * Lays out the maps of a kit off screen, some at a time, draws them and the tape as files, and reports them.
 * Unmounted as soon as it has reported.
 */
export function PictureMaker({
  kit,
  faces,
  onMade,
}: {
  kit: Kit;
  /** CSS rules with embedded fonts, for PNGs. */
  faces: string;
  onMade: (made: readonly OutFile[] | string) => void;
}) {
  const { look } = useTape();
  const room = useRef<HTMLDivElement>(null);
  const latest = useRef({ onMade, faces });
  const drawn = useRef<Drawn[]>([]);
  const nameFor = useRef(createSlugs("map"));
  const rules = useMemo(() => listRules(kit), [kit]);
  const [from, setFrom] = useState(0);
  const isReady = useMapsReady();
  useEffect(() => {
    latest.current = { onMade, faces };
  });
  useEffect(() => {
    if (!isReady) return;
    let isGone = false;
    const report = (made: readonly OutFile[] | string) => isGone || latest.current.onMade(made);
    // One frame to lay out the maps, one for their derived state.
    const request = requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        if (isGone || !room.current) return;
        drawn.current.push(...drawMaps(room.current, nameFor.current));
        if (from + BATCH < rules.length) return setFrom(from + BATCH);
        makeAll([...drawTape(look.getState()), ...drawn.current], latest.current.faces).then(
          report,
          (error: unknown) => report(error instanceof Error ? error.message : String(error)),
        );
      }),
    );
    return () => {
      isGone = true;
      cancelAnimationFrame(request);
    };
  }, [look, from, rules, isReady]);
  return (
    <div ref={room} aria-hidden inert className="pointer-events-none fixed top-0 left-[200vw] w-[760px]">
      {rules.slice(from, isReady ? from + BATCH : from).map(rule => (
        <div key={rule.key} data-rule={rule.name}>
          <RuleMap kit={kit} rule={rule} />
        </div>
      ))}
    </div>
  );
}
