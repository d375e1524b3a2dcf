import { once } from './shared';

/** Whether the page is connected; a subject's option may cut it off. */
export const connection = once('connection', () => ({ isOnline: true }));
