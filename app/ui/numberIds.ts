/**
 * Returns an SVG file in which ids are numbered in their order ("d1", "d2"), with all references to them. The page makes
 * ids anew at every drawing, and equal drawings must give equal files.
 */
export function numberIds(svg: string): string {
  const numbers = new Map<string, string>();
  for (const [, id] of svg.matchAll(/ id="([^"]+)"/g))
    if (!numbers.has(id!)) numbers.set(id!, `d${numbers.size + 1}`);
  const numberOf = (id: string) => numbers.get(id) ?? id;
  return svg
    .replace(/ id="([^"]+)"/g, (_, id: string) => ` id="${numberOf(id)}"`)
    .replace(/url\((?:&quot;|")?#([^)"&]+)(?:&quot;|")?\)/g, (_, id: string) => `url(#${numberOf(id)})`)
    .replace(/(href)="#([^"]+)"/g, (_, name: string, id: string) => `${name}="#${numberOf(id)}"`);
}
