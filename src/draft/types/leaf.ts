import { decimalOf, idOf, textOf, wholeOf, type Place } from '../../network/contract/plausible';
import { code, spyValue, text, type Value } from '../value';

/** Of what has no type: as its name has it. */
export function unknownOf(place: Place): Value {
  const { field } = place;
  if (/^(as|is|tag|element|component)$/.test(field)) return text('div', true);
  if (/^on[A-Z]|^(handle|set)[A-Z]|^(callback|render|fn)$/.test(field)) return spyValue();
  if (
    /^(is|has|can|should|show|hide|with)[A-Z]|^(disabled|loading|open|checked|visible|active|required|selected)$/.test(
      field,
    )
  )
    return code('false');
  if (
    /(count|total|size|length|index|amount|price|kilograms|weight|width|height|number|percent)$/i.test(field)
  )
    return { kind: 'number', number: wholeOf(place) };
  if (/^(items|list|rows|options|entries|data)$/.test(field)) return { kind: 'list', items: [] };
  if (/(props|attrs|attributes|styles?)$/i.test(field)) return { kind: 'object', fields: [] };
  return text(textOf(place));
}

/** A text, as its name has it. */
export function wordsFor(place: Place): Value {
  const { field } = place;
  if (/^(as|is|tag|element)$/.test(field)) return text('div', true);
  if (/^(class|className|style|key|ref|testId|data-testid)$/i.test(field)) return text(textOf(place), true);
  // The name of one, where no address is meant.
  if (/icon$/i.test(field)) return text('Icon 1');
  const words = textOf(place);
  return text(words, /(^|_)ids?$|Ids?$/.test(field));
}

/** A number, as its name has it. */
export function numberFor(place: Place): Value {
  const { field } = place;
  if (/(kilograms|weight|price|amount|ratio|rate|temperature|lat|lon|lng|latitude|longitude)$/i.test(field))
    return { kind: 'number', number: decimalOf(place) };
  if (/(percent|progress|percentage)$/i.test(field)) return { kind: 'number', number: 40 };
  if (/(timestamp|time|At|date)$/.test(field)) return { kind: 'number', number: 1935648000000 };
  if (/^(id|key|index)$/i.test(field))
    return { kind: 'number', number: Number(/\d+$/.exec(idOf(place))?.[0] ?? 1) };
  return { kind: 'number', number: wholeOf(place) };
}

/** A value of a constructor, as Vue names the types of props. */
export function ofKind(kind: string, place: Place): Value {
  switch (kind) {
    case 'Array':
      return { kind: 'list', items: [] };
    case 'Object':
      return { kind: 'object', fields: [] };
    case 'Boolean':
      return code('false');
    case 'Number':
      return numberFor(place);
    case 'String':
      return wordsFor(place);
    case 'Function':
      return spyValue();
    default:
      return unknownOf(place);
  }
}
