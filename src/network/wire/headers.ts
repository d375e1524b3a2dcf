/** A token of HTTP: a method, the name of a header. @see https://www.rfc-editor.org/rfc/rfc9110#name-tokens */
export const isToken = (text: string): boolean => /^[!#$%&'*+\-.^_`|~\w]+$/.test(text);

const forbidden = new Set(
  (
    'accept-charset accept-encoding access-control-request-headers access-control-request-method connection ' +
    'content-length cookie cookie2 date dnt expect host keep-alive origin referer set-cookie te trailer ' +
    'transfer-encoding upgrade via'
  ).split(' '),
);

/** True for a header that a page may not set. @see https://fetch.spec.whatwg.org/#forbidden-request-header */
export function isForbidden(name: string, value: string): boolean {
  const key = name.toLowerCase();
  const overrides = /^x-(http-method|http-method-override|method-override)$/.test(key);
  return (
    forbidden.has(key) ||
    /^(proxy|sec)-/.test(key) ||
    (overrides && value.split(',').some((method) => /^\s*(connect|trace|track)\s*$/i.test(method)))
  );
}

/** A MIME type: what it is, and in which encoding. @see https://mimesniff.spec.whatwg.org */
export interface Mime {
  /** In lower case, without parameters. */
  readonly essence: string;
  readonly charset: string | undefined;
}

export function readMime(text: string | null | undefined): Mime | undefined {
  const [type = '', ...parameters] = (text ?? '').split(';');
  const essence = type.trim().toLowerCase();
  if (!/^[^\s/]+\/[^\s/]+$/.test(essence)) return undefined;
  const charset = parameters
    .map((one) => /^\s*charset\s*=\s*"?([^"\s]+)"?\s*$/i.exec(one)?.[1])
    .find(Boolean);
  return { essence, charset };
}

export const isXml = ({ essence }: Mime): boolean => /^(text|application)\/xml$|\+xml$/.test(essence);

/** How long a body is by its headers; 0 where they do not say. */
export const lengthIn = (headers: Headers): number => {
  const text = headers.get('content-length') ?? '';
  return /^\d+$/.test(text) ? Number(text) : 0;
};
