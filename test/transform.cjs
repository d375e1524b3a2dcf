/* Turns TypeScript into what Jest runs. Kept apart from the library: any transformer would do. */
const { createHash } = require('node:crypto');
const { transformSync, version } = require('esbuild');

const options = {
  format: 'cjs',
  target: 'node20',
  jsx: 'automatic',
  sourcemap: 'both',
  sourcesContent: false,
  keepNames: true,
  supported: { 'dynamic-import': false },
};

module.exports = {
  process(code, filename) {
    const loader = /\.tsx?$/.test(filename) ? (filename.endsWith('x') ? 'tsx' : 'ts') : 'jsx';
    return transformSync(code, { ...options, loader, sourcefile: filename });
  },
  getCacheKey: (code, filename) =>
    createHash('sha1')
      .update([code, filename, version, JSON.stringify(options)].join('\0'))
      .digest('hex'),
};
