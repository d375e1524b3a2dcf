/** Patterns as routes are written, each with addresses. @see https://urlpattern.spec.whatwg.org */
const patterns = {
  '/hives': [
    '/hives',
    '/hives/',
    '/Hives',
    '/hives?yard=north',
    '/hives#top',
    '/hive',
    '/hives/h1',
    '//hives',
  ],
  '/hives/:id': [
    '/hives/h1',
    '/hives/',
    '/hives/h1/',
    '/hives/h%201',
    '/hives/a.b',
    '/hives/%C3%B6',
    '/hives/a:b',
    '/x/hives/h1',
  ],
  '/hives/:id/frames/:frame': ['/hives/h1/frames/7', '/hives/h1/frames', '/hives//frames/7'],
  '/hives/:id.json': ['/hives/h1.json', '/hives/h1', '/hives/.json', '/hives/a.b.json'],
  '/hives/:id(\\d+)': ['/hives/7', '/hives/h7', '/hives/'],
  '/hives/:id?': ['/hives', '/hives/h1', '/hives/'],
  '/files/:path+': ['/files/a', '/files/a/b/c', '/files', '/files/'],
  '/files/:path*': ['/files', '/files/a', '/files/a/b', '/files/'],
  '/files/*': ['/files/', '/files/a/b', '/files'],
  '/*.png': ['/a.png', '/a/b.png', '/.png', '/a.jpg'],
  '/yards{/:yard}?': ['/yards', '/yards/north', '/yards/'],
  '/{north,south}': ['/north,south', '/north'],
  '/(north|south)': ['/north', '/south', '/east'],
  '/a\\:b': ['/a:b', '/ab'],
  '/caf\u00e9': ['/caf\u00e9', '/caf%C3%A9', '/cafe'],
  '/': ['/', '/?a', '/a'],
};

export function patternCases() {
  const cases = {};
  for (const [pattern, paths] of Object.entries(patterns))
    for (const path of paths) cases[`${pattern} on ${path}`] = (match) => match(pattern, path);
  return cases;
}
