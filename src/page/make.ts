/** Makes an element of a page of ours, with its properties and what is in it. Text is text, whatever it holds. */
export const make = <K extends keyof HTMLElementTagNameMap>(
  name: K,
  properties: Partial<HTMLElementTagNameMap[K]> = {},
  ...children: (Node | string)[]
): HTMLElementTagNameMap[K] => {
  const element = Object.assign(document.createElement(name), properties);
  element.append(...children);
  return element;
};
