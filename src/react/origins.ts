import * as React from 'react';
import { calledFrom } from '../core/errors/called-from';
import { placeIn, siteIn, type Origin } from '../core/origin';
import { once } from '../core/shared';
import { exportOf } from '../seam/exports';
import { readText } from '../seam/kinds';

const sites = once('react-contexts', () => new WeakMap<object, Error>());

/**
 * Remembers where each context is created. Contexts in real code rarely have a name, and a message must
 * identify them.
 */
function watchContexts(): void {
  // The named exports of an ES module are read-only. Its default export is an object that can be changed.
  const library = ((React as { default?: typeof React }).default ?? React) as { createContext: unknown };
  const create = library.createContext as (value: unknown) => object;
  if (watched.has(create)) return;
  const createContext = (value: unknown) => {
    const context = create(value);
    sites.set(context, calledFrom('createContext', createContext));
    return context;
  };
  watched.add(createContext);
  try {
    library.createContext = createContext;
  } catch {
    // Then messages cannot say where an unnamed context was created.
  }
}

const watched = once('react-context-makers', () => new WeakSet<object>());
watchContexts();

/** What a context is called in the code, or else where it was made. */
export function originOfContext(context: unknown): Origin {
  const { displayName } = (context ?? {}) as { displayName?: string };
  const known = displayName ?? exportOf(context);
  const site = known === undefined ? sites.get(context as object) : undefined;
  const name = known ?? (site && variableAt(site));
  return name === undefined ? { name, made: site && placeIn(site) } : { name };
}

/** The variable that a context is kept in, as the line says that makes it. */
function variableAt(made: Error): string | undefined {
  const site = siteIn(made);
  const line = site && readText(site.file)?.split('\n')[site.line - 1];
  return /\b(?:const|let|var)\s+([\w$]+)\b[^=]*=[^=]*\bcreateContext\b/.exec(line ?? '')?.[1];
}

/** How a message calls a context. */
export function nameOfContext(context: unknown): string {
  const { name, made } = originOfContext(context);
  return name ?? (made ? `a value made at ${made}` : 'a value');
}
