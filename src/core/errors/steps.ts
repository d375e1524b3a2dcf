import type { Report } from './error';

/** Failures of how a test is written. */
export const steps = {
  'SIM-STEP-UNAWAITED': (f: { asked: string; threw?: string | undefined }): Report => ({
    head: `${f.asked} was not awaited, so this test ended before or while it was at work.`,
    there: f.threw ? [`It failed, and nobody was told: ${f.threw}`] : [],
    nearest: undefined,
    next: [`Await it:   await ${f.asked}(…)`],
  }),
  'SIM-HOLD-TWICE': (f: { asked: string; before: string }): Report => ({
    head: `${f.asked}() was called on a held answer that was let go before.`,
    there: [`It was let go by ${f.before}; whoever asked has that answer, and an answer is given once.`],
    next: [
      'For another answer to the next question:   inTurn(first, second), each of which may be a hold() of its own.',
    ],
  }),
  'SIM-CALL-NOBODY': (f: { asked: string; carrier: string; last: string | undefined }): Report => ({
    head: `${f.asked} was asked by ${f.carrier} while no subject was up, so nobody could answer it.`,
    there: [
      f.last
        ? `${f.last} was taken down before: code of it may still be at work, or the test itself asked.`
        : 'No subject has been up yet: a module that asks as soon as it is loaded, or the test itself.',
      'It failed like a broken connection. Nothing was sent.',
    ],
    next: [
      'Send it while a subject with a matching route is up, or stop it when the component is unmounted.',
    ],
  }),
  'SIM-LATE-THREW': (f: { subject: string; threw: string }): Report => ({
    head: `${f.subject} was taken down, and code of it threw afterwards: ${f.threw}`,
    there: ['A timer, a listener or a promise was still active after the component was unmounted.'],
    next: ['Clear the timer, remove the listener or abort the request when the component is unmounted.'],
  }),
};
