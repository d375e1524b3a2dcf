/** What a file does with an export; a rewritten file has the number written in it. */
export const usage = { passed: 0, called: 1, lookedInto: 2, handedOn: 3 } as const;

/** What a file does with each export; `*` stands for all of them at once. */
export type Uses = Readonly<Record<string, number>>;

/** The exports a file needs itself. */
export const neededOf = (uses: Uses): string[] =>
  Object.keys(uses).filter((name) => uses[name] !== usage.handedOn);
