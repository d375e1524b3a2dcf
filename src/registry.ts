import { registry as ofAngular } from './angular/errors';
import { registry as ofCore } from './core/errors';
import { registry as ofNetwork } from './network/errors';
import { registry as ofPage } from './page/errors';
import { registry as ofReact } from './react/errors';
import { registry as ofSeam } from './seam/errors';
import { registry as ofStage } from './stage/errors';
import { registry as ofVue } from './vue/errors';

/** Every code with the wording of its message, assembled for the docs and the types; no bundle carries it. */
export const registry = {
  ...ofStage,
  ...ofCore,
  ...ofNetwork,
  ...ofPage,
  ...ofSeam,
  ...ofReact,
  ...ofVue,
  ...ofAngular,
};

/** A stable code: `SIM-` and a word or two. */
export type Code = keyof typeof registry;
