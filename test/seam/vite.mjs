// Serves the cases of swapping by Vite, runs them in a real browser, and prints what came of each,
// and where a breakpoint in one of the components stops.
import { originalPositionFor, generatedPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { createServer } from 'vite';
import { openBrowser } from '../../scripts/browser.mjs';

const server = await createServer({
  root: 'test/seam/fixture',
  configFile: 'test/seam/fixture/vite.config.ts',
  server: { port: 0 },
  logLevel: 'silent',
});
await server.listen();
const { browser, close } = await openBrowser();
const page = await browser.newPage();
const debug = await page.createCDPSession();
let map;
debug.on('Debugger.scriptParsed', ({ url, sourceMapURL }) => {
  if (!/ScaleFeed\.tsx/.test(url) || !sourceMapURL) return;
  map = new TraceMap(Buffer.from(sourceMapURL.split('base64,')[1], 'base64').toString());
});
await debug.send('Debugger.enable');
const address = `http://127.0.0.1:${server.httpServer.address().port}/`;
const open = async () => {
  await page.goto(address);
  await page.waitForFunction('window.results', { timeout: 60_000 });
  return page.evaluate('window.results');
};
const results = await open();

let stopped;
if (map) {
  const { line, column } = generatedPositionFor(map, { source: map.sources[0], line: 6, column: 31 });
  debug.on('Debugger.paused', ({ callFrames: [{ functionName, location }] }) => {
    const place = originalPositionFor(map, { line: location.lineNumber + 1, column: location.columnNumber });
    stopped ??= { functionName, line: place.line };
    void debug.send('Debugger.resume');
  });
  const breakpoint = { urlRegex: '.*ScaleFeed\\.tsx.*', lineNumber: line - 1, columnNumber: column };
  await debug.send('Debugger.setBreakpointByUrl', breakpoint);
  await open();
}
await server.close();
await close();
console.log(JSON.stringify({ results, stopped }));
process.exit(0);
