import type { OutFile } from "#handover";

/** Downloads a file. */
export function download(file: OutFile): void {
  const url = URL.createObjectURL(new Blob([file.bytes], { type: file.type }));
  const link = Object.assign(window.document.createElement("a"), { href: url, download: file.name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
