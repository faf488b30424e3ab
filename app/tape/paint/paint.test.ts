import { expect, test } from "vitest";
import { createGrowingClock } from "#core";
import type { Palette } from "../../ui/palette";
import { addMark, addSpan, createRow, EMPTY_TAPE, type TapeModel, type TapeRow } from "../model/tapeRows";
import { LABEL_PX, RULER_PX, type TapeView } from "../model/tapeView";
import { paintRow } from "./paintRow";
import { paintTape } from "./paintTape";

type Call = readonly [string, ...unknown[]];

/** Returns a context that records drawing calls, with letters six px wide. */
function recordDrawing() {
  const calls: Call[] = [];
  const ctx = new Proxy({} as Record<string, unknown>, {
    get: (held, name: string) =>
      held[name] ??
      (name === "measureText"
        ? (text: string) => ({ width: text.length * 6 })
        : (...args: unknown[]) => void calls.push([name, ...args])),
  }) as unknown as CanvasRenderingContext2D;
  const of = (name: string) => calls.filter(call => call[0] === name).map(call => call.slice(1));
  return { ctx, of };
}

const PALETTE = new Proxy({}, { get: (_, name) => String(name) }) as Palette;
const VIEW: TapeView = {
  firstFrame: 100,
  pxPerFrame: 10,
  scrollPx: 0,
  widthPx: LABEL_PX + 500,
  heightPx: 300,
};
const xOf = (frame: number) => LABEL_PX + (frame - VIEW.firstFrame) * VIEW.pxPerFrame;
const modelOf = (rows: readonly TapeRow[], more: Partial<TapeModel> = {}): TapeModel => ({
  ...EMPTY_TAPE,
  frames: 600,
  rows,
  clock: createGrowingClock(),
  ...more,
});

test("only the visible part of a row is drawn, at its frames", () => {
  const row = createRow("controls", { id: "a", name: "A" });
  addSpan(row, 10, 20, "down");
  addSpan(row, 95, 110, "down");
  addSpan(row, 120, 130, "down");
  addSpan(row, 300, 310, "down");
  const { ctx, of } = recordDrawing();
  paintRow(ctx, PALETTE, VIEW, modelOf([row]), row, 0);
  expect(of("roundRect").map(([x, , width]) => [x, width])).toEqual([
    [xOf(95), 150],
    [xOf(120), 100],
  ]);
});

test("a buffered press is a trail beside the timeline; every loss is drawn, however crowded", () => {
  const row = createRow("moves", { id: "m", name: "M" });
  addSpan(row, 105, 125, "recovery");
  row.waitFrom.push(110);
  row.waitTo.push(118);
  for (const frame of [118, 118, 119]) {
    addMark(row, frame, "performed", 0);
    addMark(row, frame, "lost", 1);
  }
  const { ctx, of } = recordDrawing();
  paintRow(ctx, PALETTE, VIEW, modelOf([row]), row, 0);
  expect(of("moveTo")).toContainEqual([xOf(110), 12]);
  expect(of("lineTo")).toContainEqual([xOf(118), 12]);
  expect(of("arc").length).toBe(2);
});

test("when zoomed out a crowd costs at most its pixels, and a long stretch in it remains visible", () => {
  const row = createRow("controls", { id: "a", name: "A" });
  for (let k = 0; k < 100_000; k++) addSpan(row, k * 10, k * 10 + 4, "down");
  addSpan(row, 1_000_001, 1_100_000, "down");
  const { ctx, of } = recordDrawing();
  const far = { ...VIEW, firstFrame: 0, pxPerFrame: (VIEW.widthPx - LABEL_PX) / 1_100_000 };
  paintRow(ctx, PALETTE, far, { ...modelOf([row]), frames: 1_100_000 }, row, 0);
  const drawn = of("roundRect");
  expect(drawn.length).toBeLessThan(VIEW.widthPx);
  expect(Number(drawn.at(-1)![2])).toBeGreaterThan(40);
});

test("stopped time is marked over all rows, with a label if there is room", () => {
  const { ctx, of } = recordDrawing();
  const cursor = { frame: 0, chosenRow: 0, ghosts: [], links: [], changes: [], handles: [] };
  paintTape(
    ctx,
    PALETTE,
    VIEW,
    modelOf([createRow("controls", { id: "a", name: "A" })], {
      freezeFrom: [110, 130],
      freezeTo: [118, 131],
    }),
    { ...cursor, hoverFrame: -1, stretch: undefined, stroke: undefined, pull: undefined } as never,
  );
  const hatched = of("rect").filter(([x]) => x === xOf(110) || x === xOf(130));
  expect(hatched.map(([, y, width, height]) => [y, width, height])).toEqual([
    [RULER_PX, 80, VIEW.heightPx - RULER_PX],
    [RULER_PX, 10, VIEW.heightPx - RULER_PX],
  ]);
  expect(of("fillText").filter(([text]) => text === "stop").length).toBe(1);
});

test("where the bodies go another way than was seen, a line and words lie above the rows", () => {
  const { ctx, of } = recordDrawing();
  const cursor = { frame: 0, chosenRow: 0, ghosts: [], links: [], changes: [], handles: [] };
  const rest = { hoverFrame: -1, stretch: undefined, stroke: undefined, pull: undefined };
  const words = (otherwiseFrom?: number) => {
    const row = createRow("controls", { id: "a", name: "A" });
    const model = modelOf([row], otherwiseFrom === undefined ? {} : { otherwiseFrom });
    paintTape(ctx, PALETTE, VIEW, model, { ...cursor, ...rest } as never);
    return of("fillText").filter(([text]) => String(text).includes("another way than was seen"));
  };
  expect(words()).toEqual([]);
  const [[, x, y] = []] = words(115);
  expect([x, y]).toEqual([xOf(115) + 5, RULER_PX + 8]);
  expect(of("setLineDash").map(([dash]) => dash)).toContainEqual([5, 4]);
});
