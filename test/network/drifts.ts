type Change = (hive: Record<string, unknown>) => unknown;
const set =
  (key: string, value: unknown): Change =>
  (hive) => ({ ...hive, [key]: value });
/** A hive with a field of another name. */
export const renamed =
  (from: string, to: string): Change =>
  ({ [from]: value, ...rest }) => ({ ...rest, [to]: value });
const without =
  (key: string): Change =>
  ({ [key]: _, ...rest }) =>
    rest;

const fields = [
  'id',
  'yard',
  'name',
  'colour',
  'queen',
  'brood',
  'stores',
  'weight',
  'varroa',
  'lastInspection',
  'tasks',
];
/** What is wrong with one hive of a list, and where it is told. */
export const drifts: [what: string, change: Change, path: string][] = [
  ...fields.map((field): [string, Change, string] => [`${field} is missing`, without(field), `[1].${field}`]),
  ...fields.map((field): [string, Change, string] => [
    `${field} was renamed`,
    renamed(field, `${field}Old`),
    `[1].${field}`,
  ]),
  ['an unknown field', set('hasRoof', true), '[1].hasRoof'],
  ['a number for a text', set('name', 7), '[1].name'],
  ['a text for a number', set('weight', '31.2'), '[1].weight'],
  ['a text for a whole number', set('brood', '6'), '[1].brood'],
  ['a fraction for a whole number', set('brood', 6.5), '[1].brood'],
  ['a number below the least', set('varroa', -1), '[1].varroa'],
  ['an empty text', set('name', ''), '[1].name'],
  ['a value that is no choice', set('yard', 'west'), '[1].yard'],
  ['a choice in capitals', set('yard', 'North'), '[1].yard'],
  ['an id of another form', set('id', 'hive-1'), '[1].id'],
  ['null where nothing may be missing', set('weight', null), '[1].weight'],
  ['null for a list', set('tasks', null), '[1].tasks'],
  ['an object for a list', set('tasks', {}), '[1].tasks'],
  ['a text for a list', set('tasks', 'Add a super'), '[1].tasks'],
  ['a wrong item of a list', set('tasks', ['Add a super', 7]), '[1].tasks[1]'],
  ['a date of another form', set('lastInspection', '11.05.2026'), '[1].lastInspection'],
  ['a moment for a date', set('lastInspection', '2026-05-11T08:00:00Z'), '[1].lastInspection'],
  ['a number for a date', set('lastInspection', 1778486400000), '[1].lastInspection'],
  ['a day that there is not', set('lastInspection', '2026-02-30'), '[1].lastInspection'],
  ['a month that there is not', set('lastInspection', '2026-13-01'), '[1].lastInspection'],
  ['a text for an object', set('queen', 'marked'), '[1].queen'],
  ['a list for an object', set('queen', []), '[1].queen'],
  ['a missing field inside', set('queen', { year: 2025 }), '[1].queen.marked'],
  ['a renamed field inside', set('queen', { year: 2025, isMarked: true }), '[1].queen.marked'],
  ['a wrong type inside', set('queen', { year: '2025', marked: true }), '[1].queen.year'],
  ['a number below the least inside', set('queen', { year: 25, marked: true }), '[1].queen.year'],
  ['a text for true', set('queen', { year: 2025, marked: 'yes' }), '[1].queen.marked'],
  ['a text for the whole', () => 'Borage', '[1]'],
  ['null for the whole', () => null, '[1]'],
];
/** What is right with one hive. */
export const right: [what: string, change: Change][] = [
  ['as it is', (hive) => hive],
  ['no inspection yet', set('lastInspection', null)],
  ['no tasks', set('tasks', [])],
  ['a whole weight', set('weight', 31)],
  ['nothing of it', set('varroa', 0)],
  ['a long name', set('name', 'x'.repeat(500))],
  ...['north', 'east', 'south'].map((yard): [string, Change] => [`the yard ${yard}`, set('yard', yard)]),
  ...[0, 1, 6, 40].map((brood): [string, Change] => [`${brood} frames`, set('brood', brood)]),
  ...[2000, 2025, 2031].map((year): [string, Change] => [
    `a queen of ${year}`,
    set('queen', { year, marked: false }),
  ]),
  ...['h1', 'h22', 'h333'].map((id): [string, Change] => [`the id ${id}`, set('id', id)]),
  ...['2024-02-29', '2026-12-31', '2031-01-01'].map((day): [string, Change] => [
    `the day ${day}`,
    set('lastInspection', day),
  ]),
];
