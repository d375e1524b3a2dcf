import { fetchCases } from './fetching.mjs';
import { eventCases, socketCases } from './live.mjs';
import { patternCases } from './matching.mjs';
import { heardCases, requestCases } from './requests.mjs';

const within = (name, cases) =>
  Object.fromEntries(Object.entries(cases).map(([one, work]) => [`${name}: ${one}`, work]));

export const cases = {
  ...within('XMLHttpRequest', { ...requestCases(), ...heardCases() }),
  ...within('fetch', fetchCases()),
  ...within('WebSocket', socketCases()),
  ...within('EventSource', eventCases()),
  ...within('URL pattern', patternCases()),
};
