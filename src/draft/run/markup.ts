import { css, quoteCode } from '../../page/locators';
import { locate } from '../../page/query';
import type { Stage } from '../../stage/stage';
import type { Sign } from './observed';

const mostLength = 90;

/** What only its elements show of it, each by its attributes: an icon that is nothing but a class. */
export function readMarkup(stage: Stage, isStub: (element: Element) => boolean): readonly Sign[] {
  const all = locate(css('*'), stage.view());
  const times = new Map<string, number>();
  for (const { localName } of all) times.set(localName, (times.get(localName) ?? 0) + 1);
  return all
    .filter((one) => !isStub(one) && times.get(one.localName) === 1)
    .flatMap((element) => {
      const code = `css(${quoteCode(element.localName)})`;
      return [...element.attributes]
        .filter(({ name, value }) => !unsaid.test(name) && value !== '' && value.length <= mostLength)
        .map(({ name, value }): Sign => ({
          ...{ code, role: undefined, words: value, count: 1, state: {} },
          ...{ property: name, isMarkup: true },
        }));
    });
}

// Made by the framework, or anew each time.
const unsaid = /^(id|for|xmlns.*|data-v-.*|_ng.*|ng-.*|aria-(controls|owns|labelledby|describedby))$/;
