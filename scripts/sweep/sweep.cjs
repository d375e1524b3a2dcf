const { writeFileSync } = require('node:fs');
const { takeDown } = require('simulacra');

const seen = [];
let printed = [];
for (const name of ['log', 'info', 'warn', 'error', 'debug'])
  console[name] = (...args) => printed.push(`${name}: ${args.map(String).join(' ').slice(0, 300)}`);

const told = (error) =>
  `${error.code ?? error.name} ${String(error.message).replace(/\s+/g, ' ').slice(0, 260)}`;

async function attempt(work) {
  try {
    return await work();
  } catch (error) {
    return told(error);
  }
}

/** Isolates one component, whole and with its children stubbed, and takes it down again. */
exports.sweepOne = async (name, isolate) => {
  printed = [];
  const before = [...document.body.childNodes];
  const one = { name };
  seen.push(one);
  // What a component logs does not keep it from coming up.
  const logs = 'allowed';
  one.error = await attempt(async () => void (await isolate({ logs })).outline());
  const end = await attempt(() => takeDown());
  one.error ??= end;
  one.left = [...document.body.childNodes]
    .filter((node) => !before.includes(node) && node.nodeType === 1 && node.childNodes.length > 0)
    .map((node) => node.cloneNode(false).outerHTML.slice(0, 80))
    .join(' ');
  one.depth = (await attempt(async () => void (await isolate({ depth: 1, logs })).outline())) ?? 'up';
  const endOfDepth = await attempt(() => takeDown());
  if (one.depth === 'up' && endOfDepth) one.depth = endOfDepth;
  one.printed = printed.join('; ');
  for (const node of [...document.body.childNodes]) if (!before.includes(node)) node.remove();
};
exports.writeSeen = () => writeFileSync('seen.json', JSON.stringify(seen));
