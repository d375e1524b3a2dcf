import type { Routes } from '../stage/options';

/** Routes, or what makes them: anew after each reset. */
export type Answers = Routes | (() => Routes | Promise<Routes>);

export const makerOf = (answers: Answers) => (typeof answers === 'function' ? answers : () => answers);
