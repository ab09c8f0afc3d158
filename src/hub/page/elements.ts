/** Makes an element with these properties, and what stands in it. */
export function make<Name extends keyof HTMLElementTagNameMap>(
  name: Name,
  properties: Partial<HTMLElementTagNameMap[Name]> = {},
  ...inside: readonly (string | Node)[]
): HTMLElementTagNameMap[Name] {
  const made = Object.assign(document.createElement(name), properties);
  made.append(...inside);
  return made;
}
