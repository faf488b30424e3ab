/** The styles of a sheet, on screen and on paper: dark on white, no rule split across pages, system fonts. */
export const SHEET_STYLE = `
.sheet { color: #232e28; background: #fff; font: 10.5pt/1.45 "Atkinson Hyperlegible Next", "Atkinson Hyperlegible Next Variable", "Segoe UI", system-ui, sans-serif; max-width: 186mm; margin: 0 auto; padding: 8mm 4mm; }
.sheet h1 { font: 600 22pt/1.2 Fraunces, "Fraunces Variable", Georgia, serif; margin: 0 0 2mm; }
.sheet h2 { font: 600 14pt/1.3 Fraunces, "Fraunces Variable", Georgia, serif; margin: 7mm 0 2mm; border-bottom: 0.4mm solid #34624a; break-after: avoid; }
.sheet .rule { break-inside: avoid; padding: 2mm 0; border-bottom: 0.2mm solid #d3cab4; }
.sheet .rule p { margin: 0 0 1mm; font-family: Fraunces, "Fraunces Variable", Georgia, serif; font-size: 11.5pt; }
@media screen { .sheet .rule { content-visibility: auto; contain-intrinsic-size: auto 30mm; } }
.sheet .off { color: #59655c; text-decoration: line-through; }
.sheet table { border-collapse: collapse; width: 100%; font-size: 9pt; }
.sheet tr { break-inside: avoid; }
.sheet th, .sheet td { text-align: left; padding: 0.6mm 2mm 0.6mm 0; border-bottom: 0.2mm solid #d3cab4; vertical-align: top; }
.sheet th { font-weight: 600; }
.sheet td.n, .sheet th.n, .sheet code { font-family: "Atkinson Hyperlegible Mono", "Atkinson Hyperlegible Mono Variable", ui-monospace, "Cascadia Mono", monospace; font-size: 8.5pt; text-align: right; white-space: nowrap; }
.sheet code { text-align: left; }
.sheet .bad { font-weight: 600; }
.sheet .soft { color: #59655c; }
.sheet svg { display: block; max-width: 100%; }
.sheet svg text { font: 8pt "Atkinson Hyperlegible Mono", "Atkinson Hyperlegible Mono Variable", ui-monospace, monospace; fill: #232e28; }
`;

/** Additional styles for printing: page margins, which must be top-level rules. */
export const PAGE_STYLE = "@page { margin: 14mm 12mm; }\nbody { margin: 0; }";
