import { explain } from './errors';
import { describe } from '../page/describe';
import { whatIsThere } from '../page/nearby';
import { phraseLocator, type Locator } from '../page/locators';
import { fitsAt, locate, type View } from '../page/query';
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
      const found = lookFor(stage, locator, () => 'expect(…).toShow()', calledAt());
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
      lookFor(stage, locator, () => 'expect(…).toHaveShown()', calledAt());
      const view = stage.view();
      const pass = hasShown(stage, locator, view);
      const message = () => {
        const { there } = whatIsThere(locator, view);
        const fields = { what: what(locator), moments: stage.history.moments, there, wanted: !pass };
        return stage.withCauses(explain('SIM-NEVER-SHOWN', fields, stage.background())).message;
      };
      return { pass, message };
    },
  };
}

function hasShown(stage: Stage, locator: Locator, view: View): boolean {
  if (locate(locator, view).length > 0) return true;
  const inFrame = (root: Element): View => ({
    ...view,
    roots: [root],
    partsOf: (component) => stubsIn(root, view.nameOf(component)),
  });
  return stage.history.goBack(({ frame, changed }) => {
    if (!changed || !isLocal(locator)) return locate(locator, inFrame(frame)).length > 0;
    return changed.some((place) => {
      if (locate(locator, inFrame(place)).length > 0) return true;
      for (let at: Element | null = place; at && at !== frame; at = at.parentElement)
        if (fitsAt(at, locator)) return true;
      return false;
    });
  });
}

// A locator that depends only on an element and its content can change only where the page changed.
const isLocal = ({ sought, outer }: Locator): boolean =>
  outer === undefined && (sought.by === 'role' || sought.by === 'text' || sought.by === 'testId');

// An earlier moment is a copy of the page, where only the mark of a stub identifies a part.
const stubsIn = (frame: Element, name: string): Element[] =>
  [...frame.querySelectorAll('[data-part]')].filter((element) => element.getAttribute('data-part') === name);
