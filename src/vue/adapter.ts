import type { Adapter } from '../stage/adapter';
import { isPending, prepare } from './bridge';
import { asName, isComponent, nameOf, unwrap } from './kinds';
import { flushed } from './lost';
import { mount, owns, running } from './mount';
import { madeOf, propsOf, refuseOptions, slotsOf } from './props';
import { nameOfToken } from './thrown';

export const vueAdapter: Adapter = {
  framework: 'Vue',
  isSubject: isComponent,
  nameOf,
  unwrap,
  madeOf,
  nameAs: (written) => (/-/.test(written) && !/^v-/.test(written) ? asName(written) : written),
  refuseOptions,
  nameOfToken,
  options: ['slots'],
  outputHint: 'The outputs of a component are those it declares:   defineEmits<{ open: [hiveId: string] }>()',
  prepare,
  settle: async (work) => {
    await work();
    await flushed();
  },
  settleNow: (work) => {
    work();
    return flushed();
  },
  propWord: 'prop',
  propsOf,
  slotsOf,
  mount,
  running,
  isPending,
  owns,
};
