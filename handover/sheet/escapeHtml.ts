/** Text as it stands in HTML and in attributes. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, letter => `&#${letter.charCodeAt(0)};`);
}
