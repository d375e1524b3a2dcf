import { explaining, refusing, type Explain, type Refuse } from '../../core/errors/registry';
import { isolating } from './isolating';
import { page } from './page';
import { parts } from './parts';
import { surrounding } from './surrounding';
import { time } from './time';
import { waiting } from './waiting';

/** Failures of what the stage does in any framework. */
export const registry = { ...isolating, ...surrounding, ...parts, ...waiting, ...time, ...page };

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
