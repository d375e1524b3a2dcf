import { list } from '../core/print';
import type { Framework } from '../survey/facts';
import type { Candidate } from './explore';
import type { Observation } from './run/observed';
import type { Tried } from './run/runner';

export function whyNot(
  { title, kind }: Candidate,
  seen: Observation | undefined,
  tried: Tried,
): string | undefined {
  if (kind === 'prop') return undefined;
  const said = seen?.threw?.message ?? tried.tests.find((one) => one.title === title)?.message;
  if (said === undefined || said === '') return undefined;
  return `"${title}" is not in it: ${firstLines(said)}`;
}

export function wordsOf({ failed, tests }: Tried, observed: Observation | undefined): readonly string[] {
  if (failed) return [firstLines(failed.message)];
  const threw = observed?.threw?.message ?? tests.find(({ hasPassed }) => !hasPassed)?.message;
  return [threw === undefined ? 'It came to no end.' : firstLines(threw)];
}

export const firstLines = (message: string): string =>
  message.split('\n\n  What happened before:')[0]!.split('\n').slice(0, 12).join('\n').trim();

export function nothingTrue(
  { isEmpty, outline, requests, hasZone = false }: Observation,
  framework: Framework,
): readonly string[] {
  const isUnseen = framework === 'angular' && !hasZone && requests.length > 0;
  if (isEmpty)
    return [
      'It shows nothing, so there is nothing to say of it.',
      ...(isUnseen
        ? [
            `It was answered (${list(requests)}), and showed nothing of it. Without zone.js Angular renders again where a signal`,
            "changes, or where it is told to. Where the application runs with zone.js, load it:   setupFiles: ['zone.js']",
          ]
        : []),
    ];
  return [
    `All that it shows was made up by the draft, or has no name and no text:\n${outline.split('\n').slice(0, 10).join('\n')}`,
  ];
}
