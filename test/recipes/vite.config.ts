import { defineConfig, mergeConfig } from 'vite';
import specification from '../browser/vite.config';

export default mergeConfig(specification, defineConfig({ root: import.meta.dirname }));
