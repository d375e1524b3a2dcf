import { processScript } from './script';
import { keyOfFile, type Transformed, type TransformOptions } from './transformer';

/* A transformer for Jest: what a project of React and Vite has, with nothing else installed but TypeScript. */

export const process = (code: string, file: string, options: TransformOptions = {}): Transformed =>
  processScript(code, file, options, 'react');

export const getCacheKey = (code: string, file: string, options: TransformOptions = {}): string =>
  keyOfFile(code, file, options);
