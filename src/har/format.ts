import { print } from '../core/print';
import { refuse } from './errors';

/** One header, field of a query or cookie. */
export interface HarField {
  readonly name: string;
  readonly value: string;
}

/** One request of a session, with its response. */
export interface HarEntry {
  readonly startedDateTime: string;
  /** Milliseconds. */
  readonly time: number;
  readonly request: {
    readonly method: string;
    readonly url: string;
    readonly httpVersion: string;
    readonly cookies: readonly HarField[];
    readonly headers: readonly HarField[];
    readonly queryString: readonly HarField[];
    readonly postData?: { readonly mimeType: string; readonly text?: string };
    readonly headersSize: number;
    readonly bodySize: number;
  };
  readonly response: {
    readonly status: number;
    readonly statusText: string;
    readonly httpVersion: string;
    readonly cookies: readonly HarField[];
    readonly headers: readonly HarField[];
    readonly content: {
      readonly size: number;
      readonly mimeType: string;
      readonly text?: string;
      readonly encoding?: string;
    };
    readonly redirectURL: string;
    readonly headersSize: number;
    readonly bodySize: number;
  };
  readonly cache: object;
  readonly timings: { readonly send: number; readonly wait: number; readonly receive: number };
}

/** A recorded session: an HTTP archive of version 1.2. */
export interface Har {
  readonly log: {
    readonly version: string;
    readonly creator: { readonly name: string; readonly version: string };
    readonly entries: readonly HarEntry[];
  };
}

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Reads a session. @param given its text, or what it holds @throws SIM-HAR */
export function readHar(given: string | object): readonly HarEntry[] {
  const held: unknown = typeof given === 'string' ? parse(given) : given;
  const log = isObject(held) ? held['log'] : undefined;
  if (!isObject(log)) return refuse('SIM-HAR', { why: 'it has no log', at: 'log' });
  if (typeof log['version'] !== 'string' || !/^1\.[0-9]/.test(log['version']))
    refuse('SIM-HAR', {
      why: `its version is ${print(log['version'], 20)}, and 1.2 is known`,
      at: 'log.version',
    });
  const { entries } = log;
  if (!Array.isArray(entries)) return refuse('SIM-HAR', { why: 'it has no entries', at: 'log.entries' });
  Array.from(entries as unknown[]).forEach((entry, at) => checkEntry(entry, `log.entries[${at}]`));
  return entries as HarEntry[];
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (cause) {
    const [why = ''] = (cause as Error).message.split('\n');
    return refuse('SIM-HAR', { why: `it is no JSON (${why})`, at: '' }, { cause });
  }
}

function checkEntry(entry: unknown, at: string): void {
  const { request, response } = isObject(entry) ? entry : {};
  if (!isObject(request)) return refuse('SIM-HAR', { why: 'an entry has no request', at: `${at}.request` });
  if (typeof request['method'] !== 'string')
    refuse('SIM-HAR', { why: 'a request has no method', at: `${at}.request.method` });
  if (typeof request['url'] !== 'string' || !URL.canParse(request['url']))
    refuse('SIM-HAR', { why: `${print(request['url'], 60)} is no address`, at: `${at}.request.url` });
  if (!isObject(response))
    return refuse('SIM-HAR', { why: 'an entry has no response', at: `${at}.response` });
  if (typeof response['status'] !== 'number' || !Number.isInteger(response['status']))
    refuse('SIM-HAR', { why: 'a response has no status', at: `${at}.response.status` });
  checkFields(request['headers'], `${at}.request.headers`);
  checkFields(response['headers'], `${at}.response.headers`);
  checkTexts(request['postData'], ['text', 'mimeType'], `${at}.request.postData`);
  checkTexts(response['content'], ['text', 'mimeType', 'encoding'], `${at}.response.content`);
}

// What is left out can be done without; what is there is of its type.
function checkFields(fields: unknown, at: string): void {
  if (fields === undefined || fields === null) return;
  if (!Array.isArray(fields)) return refuse('SIM-HAR', { why: 'headers are a list', at });
  const wrong = fields.findIndex(
    (one) => !isObject(one) || typeof one['name'] !== 'string' || typeof one['value'] !== 'string',
  );
  if (wrong >= 0) refuse('SIM-HAR', { why: 'a header has a name and a value', at: `${at}[${wrong}]` });
}

function checkTexts(value: unknown, keys: readonly string[], at: string): void {
  if (value === undefined || value === null) return;
  if (!isObject(value)) return refuse('SIM-HAR', { why: 'it is no object', at });
  const wrong = keys.find(
    (key) => value[key] !== undefined && value[key] !== null && typeof value[key] !== 'string',
  );
  if (wrong) refuse('SIM-HAR', { why: 'it is no text', at: `${at}.${wrong}` });
}
