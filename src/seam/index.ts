/* What rewritten files reach the modules they import through. */
export { open } from './open';
export { openStandard } from './open-standard';
