import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of the sheet of states. */
export const registry = {
  'SIM-SHEET-FILE': (f: { file: string; why: string; nearest?: string | undefined }): Report => ({
    head: `${f.file} cannot be drawn: ${f.why}.`,
    nearest: f.nearest,
    next: [
      'A sheet is drawn of files that declare states, *.states.ts or .tsx, and of the folders they are in.',
    ],
  }),
  'SIM-SHEET-NONE': (f: { folders: readonly string[]; components: readonly string[] }): Report => ({
    head: `There is no file that declares states (*.states.*) in ${list(f.folders)}.`,
    next: [
      f.components.length > 0
        ? `Write one beside a component:   ${f.components[0]}`
        : 'Write one beside a component:   HiveBoard.states.tsx: export default states(HiveBoard, { … }, { loading: { … } })',
    ],
  }),
  'SIM-SHEET-SHARD': (f: { given: string }): Report => ({
    head: `"${f.given}" is no part of a sheet.`,
    next: ['The second of five:   --shard 2/5'],
  }),
  'SIM-SHEET-MERGE': (f: { folder: string; why: string }): Report => ({
    head: `${f.folder} cannot be merged: ${f.why}.`,
    next: ['A folder that  simulacra sheet  has written holds a sheet.json, and its pictures.'],
  }),
  'SIM-SHEET-WRITE': (f: { folder: string; why: string }): Report => ({
    head: `The sheet could not be written to ${f.folder}: ${f.why}.`,
    next: ['What was there before is as it was.'],
  }),
  'SIM-SHEET-OPTION': (f: {
    option: string;
    value: string;
    wanted: string;
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.option} was given ${f.value}, and takes ${f.wanted}.`,
    nearest: f.nearest,
  }),
  'SIM-SHEET-PORT': (f: { port: number; why: string }): Report => ({
    head: `Nothing can listen on port ${f.port}: ${f.why}.`,
    next: ['Take another one:   --port 4201     or one that is free:   --port 0'],
  }),
  'SIM-PICTURE-NEW': (f: { component: string; state: string; file: string }): Report => ({
    head: `Nobody has accepted yet what ${f.component} looks like in the state "${f.state}".`,
    next: [`Look at it on the sheet, and take it with   simulacra sheet --accept   (${f.file})`],
  }),
  'SIM-PICTURE-CHANGED': (f: {
    component: string;
    state: string;
    part: number;
    tolerance: number;
    size: readonly [number, number];
    accepted: readonly [number, number];
  }): Report => {
    const isResized = f.size.join() !== f.accepted.join();
    return {
      head: isResized
        ? `The picture of ${f.component} in the state "${f.state}" is ${f.size.join(' × ')} and was accepted as ${f.accepted.join(' × ')} pixels.`
        : `${f.component} in the state "${f.state}" looks other than was accepted: ${printPart(f.part)} of its picture changed, and ${printPart(f.tolerance)} may.`,
      next: ['The sheet shows both, and where they differ. Where it is meant:   simulacra sheet --accept'],
    };
  },
  'SIM-PICTURE-FILE': (f: { file: string; why: string }): Report => ({
    head: `The accepted picture ${f.file} could not be read: ${f.why}.`,
    next: ['Take it anew:   simulacra sheet --accept'],
  }),
};

const printPart = (part: number): string => `${Number((part * 100).toPrecision(2))} %`;

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
