/** True for an address of another machine, which no file of the project has. */
export const isAddress = (specifier: string): boolean => /^(?:https?:)?\/\//.test(specifier);
