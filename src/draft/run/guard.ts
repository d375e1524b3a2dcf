import childProcess from 'node:child_process';
import dgram from 'node:dgram';
import dns from 'node:dns';
import fs from 'node:fs';
import net from 'node:net';

/* Loaded first by the process that tries a draft: what the drafted code may not do there. */

const runner =
  /[\\/](@jest|jest-[\w-]+|jest|@babel|typescript|@swc|esbuild|jsdom|graceful-fs|v8-to-istanbul)[\\/]/;

/** True for a call that the drafted code makes, and not the runner that loads it. */
function isDrafted(): boolean {
  for (const file of filesBelow()) {
    if (runner.test(file) || file.includes(ownFolder)) return false;
    if (file === '' || file.startsWith('node:')) continue;
    if (!/[\\/]node_modules[\\/]/.test(file)) return true;
  }
  return false;
}

/** True for the code of a file itself, outside of all its functions. */
const isLoading = (site: NodeJS.CallSite): boolean =>
  site.getFunctionName() === null && !site.isToplevel() && !site.isConstructor();

/** The files whose code is running, the innermost first. As a text a stack would cost more than most of the calls. */
function filesBelow(): readonly string[] {
  const { stackTraceLimit, prepareStackTrace } = Error;
  Error.stackTraceLimit = 50;
  // What runs when a file is loaded may be a set-up file of the project's.
  Error.prepareStackTrace = (_, sites) =>
    sites.map((site) => (isLoading(site) ? '' : (site.getFileName() ?? '')));
  const files = new Error().stack as unknown as readonly string[];
  Object.assign(Error, { stackTraceLimit, prepareStackTrace });
  return files.slice(3);
}

const ownFolder = __dirname;

type Functions = Record<string, unknown>;

function refuse(module: object, names: readonly string[], called: string): void {
  const functions = module as Functions;
  for (const name of names) {
    const original = functions[name];
    if (typeof original !== 'function') continue;
    functions[name] = function refused(this: unknown, ...args: unknown[]): unknown {
      if (isDrafted())
        throw Object.assign(new Error(`${called}.${name}() is refused while a draft is tried`), {
          code: 'EACCES',
        });
      return Reflect.apply(original as (...args: unknown[]) => unknown, this, args);
    };
    // What a function has beside itself: fs.realpathSync.native, for one.
    Object.assign(functions[name] as object, original);
  }
}

const names = (module: object) => Object.keys(module).filter((name) => /^[a-z]/.test(name));
const harmless = /^(existsSync|exists|unwatchFile|constants|promises)$/;

refuse(
  fs,
  names(fs).filter((name) => !harmless.test(name)),
  'fs',
);
refuse(fs.promises, names(fs.promises), 'fs.promises');
refuse(childProcess, names(childProcess), 'child_process');
refuse(dns, ['lookup', 'resolve', 'resolve4', 'resolve6'], 'dns');
refuse(dns.promises, ['lookup', 'resolve', 'resolve4', 'resolve6'], 'dns.promises');
// Node's own code opens a connection, so the stack does not show whose it is; the runner needs none.
const refused = (called: string) =>
  function refusedForAll(): never {
    throw Object.assign(new Error(`${called}() is refused while a draft is tried`), { code: 'EACCES' });
  };
net.Socket.prototype.connect = refused('net.connect');
net.Server.prototype.listen = refused('net.listen');
dgram.Socket.prototype.send = refused('dgram.send');
