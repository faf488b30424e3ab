import { memo } from "react";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { VariantMenu } from "./VariantMenu";
import { useTape, useTapeLook } from "../hand/context";

/** The speeds the brush can paint, in percent of full speed. */
const BRUSH_PERCENTS = [0, 25, 50, 75, 100, 200];

/** Filters rows by name, or paints lanes with a chosen speed. */
function LaneTools({ wanted, onWanted }: { wanted: string; onWanted: (wanted: string) => void }) {
  const { look } = useTape();
  const tool = useTapeLook(look => look.tool);
  const brushPercent = useTapeLook(look => look.brushPercent);
  const isPainting = tool === "paint";
  return (
    <>
      {!isPainting && (
        <input
          type="search"
          aria-label="Find a row"
          placeholder="Find a row"
          className="w-28 min-w-14 shrink rounded-full border border-edge bg-leaf px-3 py-0.5 placeholder:text-soft"
          value={wanted}
          onChange={event => onWanted(event.target.value)}
        />
      )}
      <Button
        look="quiet"
        aria-pressed={isPainting}
        onClick={() => look.setState({ tool: isPainting ? "look" : "paint" })}
      >
        {isPainting ? "Painting" : "Paint"}
      </Button>
      {isPainting && (
        <ChoiceWord
          label="Speed to paint"
          value={String(brushPercent)}
          choices={BRUSH_PERCENTS.map(percent => ({
            value: String(percent),
            label: percent === 0 ? "freeze" : `${percent} % speed`,
          }))}
          onChoose={value => look.setState({ brushPercent: Number(value) })}
        />
      )}
    </>
  );
}

/**
 * The tools of the whole tape. Only depends on whether there is a take, so that a pull does not re-render it.
 */
export const DockTools = memo(function DockTools({
  hasTake,
  isFolded,
  isTable,
  wanted,
  onFold,
  onTable,
  onWanted,
}: {
  hasTake: boolean;
  isFolded: boolean;
  isTable: boolean;
  wanted: string;
  onFold: (isFolded: boolean) => void;
  onTable: (isTable: boolean) => void;
  onWanted: (wanted: string) => void;
}) {
  const { look } = useTape();
  const showsStrips = useTapeLook(now => now.showsStrips);
  const isOpen = hasTake && !isFolded;
  return (
    <span className="ml-auto flex items-center gap-1 whitespace-nowrap narrow:contents">
      {isOpen && !isTable && <LaneTools wanted={wanted} onWanted={onWanted} />}
      {isOpen && (
        <Button
          look="quiet"
          aria-expanded={showsStrips}
          onClick={() => look.setState({ showsStrips: !showsStrips })}
        >
          {showsStrips ? "One take" : "All takes"}
        </Button>
      )}
      {isOpen && !isTable && <VariantMenu />}
      {isOpen && (
        <Button look="quiet" onClick={() => onTable(!isTable)}>
          {isTable ? "As tape" : "As table"}
        </Button>
      )}
      <Button
        look="quiet"
        className="narrow:sticky narrow:right-0 narrow:ml-auto narrow:bg-paper"
        onClick={() => onFold(!isFolded)}
        aria-expanded={!isFolded}
      >
        {isFolded ? "Show the tape" : "Hide the tape"}
      </Button>
    </span>
  );
});
