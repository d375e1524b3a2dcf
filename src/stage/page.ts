import { isSlip, nearest } from '../core/near';
import { lent } from '../core/files';
import { print, printInside } from '../core/print';
import { makeStep } from '../core/step';
import { calledFrom } from '../core/errors/called-from';
import { once } from '../core/shared';
import type { AnyFunction } from '../core/spy';
import type { Environment } from '../core/environment';
import { observers, type Size } from '../page/features/observers';
import { surroundings } from '../page/surroundings';
import {
  applySettings,
  kinds,
  takeAwaySettings,
  type PageOption,
  type Setting,
} from '../page/settings/settings';
import { isSimulated } from '../page/styles';
import { explained } from './explained';
import { refuse } from './errors';
import { lookForOne, printAsked } from './look';
import type { Ground } from './ground';
import type { Stage } from './stage';
import type { Target } from './subject';

/** The page around what is tested. */
export interface OpenPage {
  /** Changes what the page is like; the page fires the events that a browser fires. @throws SIM-PAGE-SETTING */
  set(settings: PageOption): Promise<void>;
  /** What was shown to the person outside of the page. */
  readonly notifications: readonly { readonly title: string; readonly body: string }[];
}

/**
 * The page of a subject.
 *
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, page: { online: false } });
 * await board.page.set({ online: true });
 */
export interface SubjectPage extends OpenPage {
  /** Gives an element a size in pixels, and notifies its observers. @throws SIM-PAGE-SETTING */
  resize(target: Target, size: Size): Promise<void>;
  /** Scrolls an element into view or out of it, or a part of it from 0 to 1, and notifies its observers. */
  inView(target: Target, part: boolean | number): Promise<void>;
}

const users = once('page-users', () => new Map<Environment, PageOption>());

/** Makes the page as a subject asks for it. @throws SIM-PAGE-SETTING, SIM-PAGE-SHARED */
export function enterPage(environment: Environment, option: PageOption, calledAt: Error): void {
  refuseSettings('page', option, calledAt);
  for (const [other, theirs] of users) {
    const differing = Object.keys(option).find(
      (name) =>
        theirs[name as Setting] !== undefined &&
        print(theirs[name as Setting]) !== print(option[name as Setting]),
    );
    if (differing)
      refuse(
        'SIM-PAGE-SHARED',
        { subject: environment.name, other: other.name, setting: differing },
        { calledAt },
      );
  }
  users.set(environment, option);
  environment.sandbox.onTakeDown(() => {
    users.delete(environment);
    if (users.size === 0) takeAwaySettings();
  });
  applySettings(option, false);
}

/** Has a browser change what only its driver can, where that is lent. */
export function changeScreen({ width, height, dark, reducedMotion }: PageOption): Promise<void> | undefined {
  const wanted = Object.entries({ width, height, dark, reducedMotion }).filter(
    ([, value]) => value !== undefined,
  );
  return wanted.length > 0 ? lent.screen?.(Object.fromEntries(wanted)) : undefined;
}

const otherNames: Readonly<Record<string, Setting>> = {
  ...{ darkMode: 'dark', theme: 'dark', colorScheme: 'dark', offline: 'online', locale: 'language' },
  ...{
    localStorage: 'storage',
    sessionStorage: 'session',
    url: 'location',
    path: 'location',
    href: 'location',
  },
  ...{ hidden: 'visible', geolocation: 'position', innerWidth: 'width', innerHeight: 'height' },
};

function refuseSettings(asked: string, option: unknown, calledAt: Error): void {
  const names = Object.keys(kinds);
  if (typeof option !== 'object' || option === null || Array.isArray(option))
    refuse(
      'SIM-PAGE-SETTING',
      { asked, given: print(option), wanted: 'settings: { width: 400, dark: true }' },
      { calledAt },
    );
  for (const [name, value] of Object.entries(option as object)) {
    const kind = kinds[name as Setting] as (typeof kinds)[Setting] | undefined;
    if (!kind) {
      const near = otherNames[name] ?? names.find((one) => isSlip(name, one)) ?? nearest(name, names);
      refuse('SIM-OPTION-UNKNOWN', { option: name, known: names, nearest: near, of: asked }, { calledAt });
    }
    if (value === undefined) continue;
    if (!kind!.isRight(value))
      refuse(
        'SIM-PAGE-SETTING',
        { asked, given: `${name}: ${print(value)}`, wanted: kind!.wanted },
        { calledAt },
      );
    if (kind!.isOfScreen && !lent.screen) refuseReal(asked, name, calledAt);
  }
}

// A real browser has a layout, which decides by itself.
function refuseReal(asked: string, setting: string, calledAt: Error): void {
  if (!isSimulated(document)) refuse('SIM-PAGE-REAL', { asked, setting }, { calledAt });
}

type Step = (asked: string, call: AnyFunction, work: (calledAt: Error) => Promise<void>) => Promise<void>;

const stepOf =
  (ground: Ground): Step =>
  (asked, call, work) => {
    const calledAt = calledFrom(asked, call);
    const done = explained(ground, calledAt, async () => {
      ground.refuseGone(`${asked}()`, calledAt);
      await ground.atRest();
      await work(calledAt);
    });
    return makeStep(asked, calledAt, done);
  };

/** The page, as a test sees it. */
export function makePage(ground: Ground): OpenPage {
  const step = stepOf(ground);
  const page: OpenPage = {
    set: (settings) =>
      step('page.set', page.set, async (calledAt) => {
        const { environment, chronicle } = ground;
        refuseSettings('page.set()', settings, calledAt);
        if (!users.has(environment)) enterPage(environment, {}, calledAt);
        users.set(environment, { ...users.get(environment), ...settings });
        const detail = printInside(settings);
        chronicle.add('changed', 'the page', { detail, trigger: true });
        await changeScreen(settings);
        await tellAll(ground, 'changed the page', () => applySettings(settings, true));
      }),
    get notifications() {
      return surroundings.notifications.map((one) => ({ ...one }));
    },
  };
  return page;
}

/** The page of a subject, with what is rendered on it. */
export function makeSubjectPage(stage: Stage): SubjectPage {
  const step = stepOf(stage);
  const find = (asked: string, target: Target, calledAt: Error) =>
    lookForOne(stage, target, () => printAsked(stage, asked, target), calledAt);
  const around = makePage(stage);
  const page: SubjectPage = {
    set: around.set,
    get notifications() {
      return around.notifications;
    },
    resize: (target, size) =>
      step('page.resize', page.resize, async (calledAt) => {
        refuseReal('page.resize()', 'the size of an element', calledAt);
        const element = find('page.resize', target, calledAt);
        refuseSize(size, calledAt);
        giveSize(element, size);
        const tell = () => [...observers.resizing].forEach((one) => one.tell(element, size));
        await tellAll(stage, 'gave an element a size', tell);
      }),
    inView: (target, part) =>
      step('page.inView', page.inView, async (calledAt) => {
        refuseReal('page.inView()', 'what is in view', calledAt);
        const element = find('page.inView', target, calledAt);
        const ratio = Number(part);
        if (!(ratio >= 0 && ratio <= 1)) {
          const given = `page.inView(…, ${print(part)})`;
          const wanted = 'true or false, or the part that is in view, from 0 to 1';
          refuse('SIM-PAGE-SETTING', { asked: 'page.inView()', given, wanted }, { calledAt });
        }
        const tell = () => [...observers.seeing].forEach((one) => one.tell(element, ratio));
        await tellAll(stage, 'scrolled', tell);
      }),
  };
  return page;
}

function refuseSize(size: Size, calledAt: Error): void {
  const isSize = (value: unknown) => typeof value === 'number' && value >= 0;
  if (isSize((size as Partial<Size> | undefined)?.width) && isSize(size.height)) return;
  const wanted = '{ width: 320, height: 40 }, in pixels';
  refuse('SIM-PAGE-SETTING', { asked: 'page.resize()', given: print(size), wanted }, { calledAt });
}

/** Has the page fire an event, and brings the page to rest. */
const tellAll = (ground: Ground, what: string, work: () => void): Promise<void> =>
  ground.act(what, () => ground.adapter.settleNow(work));

/** Gives an element a size that a page without a layout does not have. It goes with the element. */
function giveSize(element: HTMLElement, { width, height }: Size): void {
  const rect = { x: 0, y: 0, top: 0, left: 0, right: width, bottom: height, width, height };
  element.getBoundingClientRect = () => ({ ...rect, toJSON: () => rect });
  for (const kind of ['client', 'offset', 'scroll']) {
    Object.defineProperty(element, `${kind}Width`, { value: width, configurable: true });
    Object.defineProperty(element, `${kind}Height`, { value: height, configurable: true });
  }
}
