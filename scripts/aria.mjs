// Makes src/page/aria.ts: what the standards say of roles, out of the package html-aria, in the few words a page needs.
import { readFileSync, writeFileSync } from 'node:fs';
import { attributes, roles, tags } from 'html-aria';

const file = 'src/page/aria.ts';
const all = Object.values(roles).filter(({ name }) => name !== 'none' && name !== 'image');

/** The names that this library prefers where a standard has two. */
const print = (names) => `words('${[...names].sort().join(' ')}')`;
const named = (fits) => print(all.filter(fits).map(({ name }) => name));
// Of books and drawings nothing on a page has states.
const supporting = (state) =>
  named(({ name, supported }) => supported.includes(`aria-${state}`) && !/^(doc|graphics)-/.test(name));
const states = ['checked', 'disabled', 'expanded', 'invalid', 'pressed', 'readonly', 'required', 'selected'];

// Of drawings only the whole one is decided by its tag.
const isPlain = ([tag, { defaultRole }]) =>
  tag !== 'text' && defaultRole && !['none', 'generic'].includes(defaultRole);
const tagRoles = Object.entries(tags)
  .filter(isPlain)
  .map(([tag, { defaultRole }]) => `${tag} ${defaultRole}`);

const text = `/* Made by \`node scripts/aria.mjs\` out of the package html-aria. */

const words = (text: string): ReadonlySet<string> => new Set(text.split(' '));

/**
 * Every role there is, without the abstract ones.
 *
 * @see https://www.w3.org/TR/wai-aria-1.3/#role_definitions
 */
export const knownRoles = ${named(() => true)};

/** Roles whose name comes from what they contain. @see https://www.w3.org/TR/wai-aria-1.3/#namefromcontent */
export const namedByContent = ${named(({ nameFrom }) => /ontents/.test(nameFrom))};

/** Roles that may have no name. @see https://www.w3.org/TR/wai-aria-1.3/#namefromprohibited */
export const nameProhibited = ${named(({ nameFrom }) => nameFrom === 'prohibited')};

/** The attributes that every element may have. @see https://www.w3.org/TR/wai-aria-1.3/#global_states */
export const globalAttributes = ${print(
  Object.entries(attributes)
    .filter(([name, { category }]) => category.includes('global') && name !== 'aria-hidden')
    .map(([name]) => name),
)};

/** Which roles have a state. */
export const supporting = {
${states.map((state) => `  ${state}: ${supporting(state)},`).join('\n')}
} as const;

/**
 * The role of each element by its tag, where nothing else decides.
 *
 * @see https://www.w3.org/TR/html-aam-1.0/#html-element-role-mappings
 */
export const tagRoles: Readonly<Record<string, string>> = Object.fromEntries(
  '${tagRoles.join(',')}'
    .split(',')
    .map((pair) => pair.split(' ') as [string, string]),
);
`;

/** Writes the file. @returns whether it was so already */
export async function writeAria() {
  const prettier = await import('prettier');
  const options = await prettier.resolveConfig(file);
  const made = await prettier.format(text, { ...options, parser: 'typescript' });
  let before = '';
  try {
    before = readFileSync(file, 'utf8');
  } catch {
    // The first time there is none.
  }
  if (made !== before) writeFileSync(file, made);
  return made === before;
}

if (process.argv[1]?.endsWith('aria.mjs')) console.log((await writeAria()) ? 'as before' : `wrote ${file}`);
