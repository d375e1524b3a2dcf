import { explain } from './errors';
import { describe } from '../page/describe';
import { whatIsThere } from '../page/explain';
import { phraseLocator, type Locator } from '../page/locators';
import { locate } from '../page/query';
import { lookFor, wordNone } from './look';
import type { Stage } from './stage';

/** What a matcher needs to know: whether it holds, and what to say where that is not wanted. */
export interface Verdict {
  readonly pass: boolean;
  message(): string;
}

/** What the matchers ask of a subject. */
export interface Verdicts {
  shows(locator: Locator, times: number | undefined): Verdict;
  hasShown(locator: Locator): Verdict;
}

export function makeVerdicts(stage: Stage): Verdicts {
  const what = (locator: Locator) => phraseLocator(locator, stage.view().nameOf);
  const calledAt = () => new Error('matcher');
  return {
    shows(locator, times) {
      const found = lookFor(stage, locator, 'expect(…).toShow()', calledAt());
      const pass = times === undefined ? found.length > 0 : found.length === times;
      const message = () => {
        if (!pass && found.length === 0) return stage.withCauses(wordNone(stage, locator, undefined)).message;
        const fields = {
          what: what(locator),
          found: found.map(describe),
          times: found.length,
          wanted: times,
        };
        return stage.withCauses(explain('SIM-SHOWN', fields, stage.background())).message;
      };
      return { pass, message };
    },
    hasShown(locator) {
      lookFor(stage, locator, 'expect(…).toHaveShown()', calledAt());
      const frames = stage.history.frames();
      const view = stage.view();
      const pass = frames.some(
        (frame) =>
          locate(locator, {
            ...view,
            roots: [frame],
            partsOf: (component) => stubsIn(frame, view.nameOf(component)),
          }).length > 0,
      );
      const message = () => {
        const { there } = whatIsThere(locator, view);
        const fields = { what: what(locator), moments: frames.length, there, wanted: !pass };
        return stage.withCauses(explain('SIM-NEVER-SHOWN', fields, stage.background())).message;
      };
      return { pass, message };
    },
  };
}

// An earlier moment is a copy of the page: there a part can only be told by its stub's mark.
const stubsIn = (frame: Element, name: string): Element[] =>
  [...frame.querySelectorAll('[data-part]')].filter((element) => element.getAttribute('data-part') === name);
