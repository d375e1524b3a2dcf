import { join } from 'node:path';
import { assets, scripts, tools } from './patterns';

const transformer = join(__dirname, 'react-transform.cjs');

/* What Jest needs to load a project of React and Vite: spread it into the configuration. */
export const testEnvironment = 'jsdom';
export const transform = { [assets]: transformer, [scripts]: transformer };
// Many packages ship ES modules.
export const transformIgnorePatterns = [tools];
