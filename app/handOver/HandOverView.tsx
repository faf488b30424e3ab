import { useMemo, useState } from "react";
import { EXPORT_FORMATS, type Handover } from "#handover";
import { useDocument } from "../document/workbenchContext";
import { Region } from "../ui/Region";
import { NextStep } from "../parts/NextStep";
import { Files } from "./Files";
import { FormList } from "./FormList";
import { PictureMaker } from "./PictureMaker";
import { useSheetOptions } from "./SheetOptions";
import { TakeInSection } from "./TakeInSection";
import { TimingSheet } from "./TimingSheet";
import type { DrawnPictures } from "./useFiles";
import { useParts } from "./useParts";

/** Returns everything of the open kit that can be exported; identical until some of it changes. */
function useHandover(): Handover | undefined {
  const kit = useDocument(state => state.kit);
  const takes = useDocument(state => state.takes);
  const layouts = useDocument(state => state.layouts);
  const checks = useDocument(state => state.checks);
  const variants = useDocument(state => state.variants);
  return useMemo(
    () => kit && { kit, takes, layouts, checks, variants },
    [kit, takes, layouts, checks, variants],
  );
}

/** Hand over: the timing sheet, the export forms with their files and sizes, and imports. */
export function HandOverView() {
  const handover = useHandover();
  const sheet = useSheetOptions();
  const built = useParts();
  const [isSaved, setSaved] = useState(false);
  const [drawn, setDrawn] = useState<DrawnPictures>();
  const [drawing, setDrawing] = useState<Handover>();
  const withOptions = useMemo(() => handover && { ...handover, sheet }, [handover, sheet]);
  if (!handover || !withOptions) return null;
  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_minmax(380px,36%)] max-lg:block max-lg:overflow-auto">
      <TimingSheet handover={withOptions} />
      <section
        aria-label="Files"
        className="min-h-0 overflow-auto border-l border-line px-6 py-4 max-lg:overflow-visible max-lg:border-l-0 narrow:px-4"
      >
        <h1 className="font-serif text-2xl">Export</h1>
        <div className="mb-3">
          <NextStep view="hand-over" isDone={isSaved}>
            Make all in one and save it: it holds everything, and is read in again by dropping it on the
            shelf.
          </NextStep>
        </div>
        <FormList formats={EXPORT_FORMATS}>
          {format => (
            <Region name={format.word} of={handover}>
              <Files
                format={format}
                handover={format.uses.includes("options") ? withOptions : handover}
                base={handover}
                built={built}
                drawn={drawn}
                onDraw={setDrawing}
                onSaved={() => setSaved(true)}
              />
            </Region>
          )}
        </FormList>
        <TakeInSection />
      </section>
      {/* Pictures need the fonts, which come with the parts. */}
      {drawing && built !== undefined && (
        <PictureMaker
          kit={drawing.kit}
          faces={typeof built === "object" ? built.faces : ""}
          onMade={files => {
            setDrawing(undefined);
            setDrawn({ of: drawing, files });
          }}
        />
      )}
    </div>
  );
}
