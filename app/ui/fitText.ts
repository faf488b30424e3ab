/** A text cut to a width in px, by the font that is set; three dots stand for what was cut. Measures in steps that halve. */
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

/** A text of at most so many letters, with three dots at its end where it was cut. */
export function cutLetters(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
}
