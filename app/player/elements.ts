/** Returns an element of player.html by its id. */
export function element<T extends HTMLElement>(id: string): T {
  return document.getElementById(id) as T;
}

/** Creates an element with its class and its text. */
export function make(tag: string, looks: string, text = ""): HTMLElement {
  const made = document.createElement(tag);
  made.className = looks;
  made.textContent = text;
  return made;
}
