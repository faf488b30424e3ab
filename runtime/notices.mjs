import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";

/** Returns the folder of the package that a source file belongs to; undefined for a file of our own. */
function packageOf(path) {
  const found = /^.*\/?node_modules\/(?:@[^/]+\/)?[^/]+(?=\/)/.exec(path.replaceAll("\\", "/"));
  return found?.[0].replace(/^.*?(?=node_modules\/)/, "");
}

/** Returns the notice of one package: its name, version and licence, and the text of its licence. */
async function noticeOf(folder) {
  const { name, version, license } = JSON.parse(await readFile(join(folder, "package.json"), "utf8"));
  const names = (await readdir(folder)).filter(file => /^(licen[cs]e|copying)(\.(md|txt))?$/i.test(file));
  const texts = await Promise.all(names.map(file => readFile(join(folder, file), "utf8")));
  return [`${name} ${version} (${license})`, ...texts.map(text => text.trim())].join("\n\n");
}

/**
 * Returns the notices of the packages that shipped files come from, by name, as plain text. `paths`: the source
 * files of a bundle, as its bundler names them; files of our own are passed over.
 */
export async function noticesOf(paths) {
  const folders = [...new Set(paths.map(packageOf).filter(folder => folder !== undefined))].sort();
  const notices = await Promise.all(folders.map(noticeOf));
  return notices.join(`\n\n${"-".repeat(80)}\n\n`);
}
