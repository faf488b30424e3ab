/** An element of the page that player.html has. */
export function element<T extends HTMLElement>(id: string): T {
  return document.getElementById(id) as T;
}

/** Makes an element with its looks and its text. */
export function make(tag: string, looks: string, text = ""): HTMLElement {
  const made = document.createElement(tag);
  made.className = looks;
  made.textContent = text;
  return made;
}
