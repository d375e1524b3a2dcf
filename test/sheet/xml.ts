/** A word on what is not well-formed in an XML document; empty where all is. */
export function complainOfXml(xml: string): string {
  const open: string[] = [];
  const rest = xml.replace(
    /<\?xml[^?]*\?>|<(\/?)([a-z]+)((?: [a-z]+="[^"<]*")*)(\/?)>/g,
    (_, end: string, name?: string, __?: string, alone?: string) => {
      if (name === undefined || alone) return '';
      if (!end) open.push(name);
      else if (open.pop() !== name) open.push(`</${name}`);
      return '';
    },
  );
  if (open.length > 0) return `not closed: ${open.join(', ')}`;
  return /[<>]|&(?!amp;|lt;|gt;|quot;)/.exec(rest)?.[0] ?? '';
}
