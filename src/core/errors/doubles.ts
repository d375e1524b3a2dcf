import type { Report } from './error';
import { list } from '../print';

/** Failures of doubles. */
export const doubles = {
  'SIM-RECORD-SOURCE': (f: { source: string; needsEvent: boolean }): Report => ({
    head: `record() was given ${f.source}, which ${f.needsEvent ? 'emits events of several names' : 'emits nothing that it knows of'}.`,
    there: f.needsEvent
      ? []
      : [
          'It knows Observables, async iterables, stores, EventTargets and event emitters, and the signals and refs of the framework whose entry is loaded.',
        ],
    next: f.needsEvent ? ["Name the event:   record(source, 'message')"] : [],
  }),
  'SIM-SCORE': (f: { entry: string; why: string }): Report => ({
    head: `"${f.entry}" cannot be played: ${f.why}.`,
    there: ['What is played are moments and values:   300ms 31.2; 600ms {"kg":31.4}; 1s end'],
  }),
  'SIM-CHANNEL-CLOSED': (f: { asked: string; opened: number }): Report => ({
    head: `${f.asked}() reaches nobody: no connection of this channel is open.`,
    there: [
      f.opened === 0
        ? 'No component has connected to it so far.'
        : `A component connected ${f.opened === 1 ? 'once' : `${f.opened} times`}, and each connection has ended.`,
    ],
    next: [
      f.opened === 0
        ? "Look in String(subject.chronicle) for what it connected to, and answer that:   network: { 'WS /…': channel } for a WebSocket, 'GET /…' for an EventSource"
        : 'Where the component connects again after a time, let it pass:   await subject.time.advance(…)',
    ],
  }),
  'SIM-STANDIN-UNKNOWN': (f: {
    whose: string;
    name: string;
    known: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `"${f.name}" was asked of ${f.whose === 'a stand-in' ? f.whose : `a stand-in for ${f.whose}`}, which has no such member.`,
    there: [f.known.length ? `It has ${list(f.known, 20)}.` : 'It has no members at all.'],
    nearest: f.nearest,
    next: [`Add it to the stand-in:   standIn({ ${f.name}: … })`],
  }),
};
