import type { Given } from '../model';
import { wrapperNamed } from '../packages';
import type { FailureSeen } from '../run/observed';
import { text } from '../value';
import { type Mended, addStub, addWrapper } from './mended';

/** Gives what a plugin of a package registers, and puts a stub in the place of what anybody else would. */
export function addUnresolved(given: Given, { fields }: FailureSeen): Mended | undefined {
  const name = String(fields['asName']);
  const plugin = wrapperNamed(name, 'vue');
  if (plugin) return addWrapper(given, plugin, 'a router');
  return addStub(given, text(name, true), `stubbed ${name}, which nobody registers`);
}
