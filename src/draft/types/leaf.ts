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
    /(count|total|size|length|index|amount|price|kilograms|weight|width|height|number|percent|value)$/i.test(
      field,
    ) &&
    !/^value$/.test(field)
  )
    return { kind: 'number', number: wholeOf(place) };
  if (/^(items|list|rows|options|entries|data)$/.test(field)) return { kind: 'list', items: [] };
  return text(textOf(place));
}

/** A text, as its name has it. */
export function wordsFor(place: Place): Value {
  const { field } = place;
  if (/^(as|is|tag|element)$/.test(field)) return text('div', true);
  if (/^(class|className|style|key|ref|testId|data-testid)$/i.test(field)) return text(textOf(place), true);
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
