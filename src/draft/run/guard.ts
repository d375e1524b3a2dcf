import childProcess from 'node:child_process';
import dgram from 'node:dgram';
import dns from 'node:dns';
import fs from 'node:fs';
import net from 'node:net';

/* Loaded first by the process that tries a draft: what the drafted code may not do there. */

/** True for a call that the drafted code makes, and not the runner that loads it. */
function isDrafted(): boolean {
  const limit = Error.stackTraceLimit;
  Error.stackTraceLimit = 50;
  const frames = (new Error().stack ?? '').split('\n').slice(3);
  Error.stackTraceLimit = limit;
  for (const frame of frames) {
    if (
      /[\\/](@jest|jest-[\w-]+|jest|@babel|typescript|@swc|esbuild|jsdom|graceful-fs|v8-to-istanbul)[\\/]/.test(
        frame,
      )
    )
      return false;
    if (frame.includes(ownFolder)) return false;
    if (/node:|<anonymous>/.test(frame)) continue;
    if (!/[\\/]node_modules[\\/]/.test(frame)) return true;
  }
  return false;
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
// A connection is opened by code of Node's own, so that nobody on the stack tells whose it is; the runner needs none.
const refused = (called: string) =>
  function refusedForAll(): never {
    throw Object.assign(new Error(`${called}() is refused while a draft is tried`), { code: 'EACCES' });
  };
net.Socket.prototype.connect = refused('net.connect');
net.Server.prototype.listen = refused('net.listen');
dgram.Socket.prototype.send = refused('dgram.send');
