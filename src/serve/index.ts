export { serve, type Served, type ServeOptions } from './server';
export type { Answers } from './answers';
export type { ServedRoute, Told } from './backend';
export type { Configuration } from './load';
