export { serve, type Answers, type Served, type ServeOptions } from './server';
export type { ServedRoute, Told } from './backend';
export type { Configuration } from './load';
