/** Escapes text for HTML content and attributes. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, letter => `&#${letter.charCodeAt(0)};`);
}
