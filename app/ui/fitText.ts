/** Truncates a text to a width in px, in the current font, with an ellipsis. Binary search. */
export function fitText(
  ctx: Pick<CanvasRenderingContext2D, "measureText">,
  text: string,
  width: number,
): string {
  if (ctx.measureText(text).width <= width) return text;
  const letters = [...text];
  let low = 1;
  let high = letters.length - 1;
  const cut = (count: number) => `${letters.slice(0, count).join("").trimEnd()}…`;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (ctx.measureText(cut(middle)).width <= width) low = middle;
    else high = middle - 1;
  }
  return cut(low);
}
