import type { SimulacraError as AnyFailure } from './core/errors/error';
import { registry as ofAngular } from './angular/errors';
import { registry as ofArrivals } from './arrivals/errors';
import { registry as ofBrowser } from './browser/errors';
import { registry as ofChromium } from './chromium/errors';
import { registry as ofCore } from './core/errors';
import { registry as ofDraft } from './draft/errors';
import { registry as ofHar } from './har/errors';
import { registry as ofNetwork } from './network/errors';
import { registry as ofPage } from './page/errors';
import { registry as ofReact } from './react/errors';
import { registry as ofSeam } from './seam/errors';
import { registry as ofServe } from './serve/errors';
import { registry as ofSheet } from './sheet/errors';
import { registry as ofStage } from './stage/errors';
import { registry as ofStates } from './states/errors';
import { registry as ofSurvey } from './survey/errors';
import { registry as ofSyntax } from './syntax/errors';
import { registry as ofTransform } from './transform/errors';
import { registry as ofVue } from './vue/errors';

/** Every code with the wording of its message, assembled for the docs and the types; no bundle carries it. */
export const registry = {
  ...ofStage,
  ...ofStates,
  ...ofCore,
  ...ofArrivals,
  ...ofNetwork,
  ...ofHar,
  ...ofPage,
  ...ofSeam,
  ...ofServe,
  ...ofBrowser,
  ...ofChromium,
  ...ofSheet,
  ...ofSyntax,
  ...ofSurvey,
  ...ofDraft,
  ...ofTransform,
  ...ofReact,
  ...ofVue,
  ...ofAngular,
};

/** The facts of each failure as data, by its code. */
export type FailureFields = { readonly [C in Code]: Parameters<(typeof registry)[C]>[0] };

/**
 * A failure with its facts, discriminated by its code: a program that mends tests asks for `error.code` and has
 * `error.fields` of that code's type.
 */
export type CodedFailure = {
  [C in Code]: AnyFailure & { readonly code: C; readonly fields: FailureFields[C] };
}[Code];

/** A stable code: `SIM-` and a word or two. */
export type Code = keyof typeof registry;
