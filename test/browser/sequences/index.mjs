import { pointer } from './pointer.mjs';
import { boxes } from './boxes.mjs';
import { keys } from './keys.mjs';
import { fields } from './fields.mjs';

export const sequences = { ...pointer, ...boxes, ...keys, ...fields };
