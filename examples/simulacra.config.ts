import type { Configuration } from 'simulacra/serve';

/** `simulacra sheet` in this folder draws the states of the three examples. */
export default {
  sheet: { load: ['shared/styles.css'] },
} satisfies Configuration;
