import type { Report } from '../../core/errors/error';
import { asCode, list } from '../../core/print';

/** Failures of stubs, parts and outputs. */
export const parts = {
  'SIM-STUB-UNUSED': (f: {
    subject: string;
    stub: string;
    rendered: string[];
    nearest?: string | undefined;
    twin: boolean;
  }): Report => ({
    head: `The stub for ${f.stub} was never used: ${f.subject} rendered no such component.`,
    there: [
      f.rendered.length
        ? `Rendered inside ${f.subject}: ${list(f.rendered)}.`
        : `Nothing but ${f.subject} itself was rendered.`,
      ...(f.twin
        ? [
            'A component of the same name was rendered, but it is another one: another file, or another wrapping of it.',
          ]
        : []),
    ],
    nearest: f.nearest && `stub: [${asCode(f.nearest)}]`,
    next: [
      f.twin
        ? `Import the same component that ${f.subject} imports, or stub it by name:   stub: ['${f.stub}']`
        : 'Remove the stub, or bring the test to where the child is rendered.',
    ],
  }),
  'SIM-STUB-NAME': (f: { subject: string; stub: string; nearest: string; rendered: string[] }): Report => ({
    head: `No component is called "${f.stub}"; ${f.subject} rendered "${f.nearest}", which was not stubbed.`,
    there: [`Rendered inside ${f.subject}: ${list(f.rendered)}.`],
    nearest: `stub: ['${f.nearest}']`,
    next: ['Stubbing by reference cannot be misspelt:   stub: [TheComponent]'],
  }),
  'SIM-STUB-HANDLE': (f: {
    stub: string;
    member: string;
    known: readonly string[];
    /** Who asked for it, where that is known: a child that injects the component, say. */
    by?: string | undefined;
  }): Report => ({
    head: f.by
      ? `${f.by} asks for "${f.member}" of ${f.stub}, which is stubbed; its handle has no such member.`
      : `A parent reached through its ref for "${f.member}" of the stub of ${f.stub}, whose handle has no such member.`,
    there: [f.known.length ? `The handle has ${list(f.known)}.` : 'This stub has no handle.'],
    next: [
      `Give it one:   stub: [stub(${asCode(f.stub)}, { handle: { ${f.member}: ${f.by ? '…' : 'spy()'} } })]`,
    ],
  }),
  'SIM-PART-NONE': (f: {
    subject: string;
    part: string;
    rendered: string[];
    /** How many of it are rendered, though nothing of them is on the page. */
    bare?: number;
    nearest?: string | undefined;
  }): Report =>
    f.bare
      ? {
          head: `${f.subject} renders ${f.part}, which has no element on the page.`,
          there: ['It renders nothing at present, or only text.'],
          next: [`Look at its props:   subject.part(${asCode(f.part)}).props`],
        }
      : {
          head: `${f.subject} has no part ${f.part} on the page.`,
          there: [
            f.rendered.includes(f.part)
              ? `It was rendered earlier in this test, and is gone. Rendered so far: ${list(f.rendered)}.`
              : f.rendered.length
                ? `Its parts are ${list(f.rendered)}.`
                : `It renders no other component.`,
          ],
          nearest: f.nearest && `part(${asCode(f.nearest)})`,
          next: ['Wait for it with   await subject.appears(part(…))   if it comes later.'],
        },
  'SIM-PART-INDEX': (f: { part: string; index: number; times: number }): Report => ({
    head: `part(${f.part}).at(${f.index}) was asked for, and there ${f.times === 1 ? 'is 1' : `are ${f.times}`} on the page.`,
    there: ['They are counted from 0, in page order; -1 is the last one.'],
    nearest: `part(${asCode(f.part)}).at(${f.times - 1})`,
  }),
  'SIM-PART-MANY': (f: { part: string; times: number; asked: string }): Report => ({
    head: `${f.asked} needs one ${f.part}, and there are ${f.times} on the page.`,
    next: [`Say which:   subject.part(${asCode(f.part)}).at(0)`],
  }),
  'SIM-PART-TELL': (f: {
    part: string;
    name: string;
    known: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.part} was given no function "${f.name}" by its parent.`,
    there: [f.known.length ? `It was given ${list(f.known)}.` : 'It was given no function at all.'],
    nearest: f.nearest && `tell('${f.nearest}', …)`,
    next: ['Look at what the parent passed:   subject.part(…).props'],
  }),
  'SIM-OUTPUT-NONE': (f: {
    subject: string;
    asked: string;
    known: readonly string[];
    nearest?: string | undefined;
    hint: string;
  }): Report => ({
    head: `${f.subject} has no output "${f.asked}" that could be read.`,
    there: [f.known.length ? `It has ${list(f.known)}.` : 'It has none.'],
    nearest: f.nearest && (/^[\w$]+$/.test(f.nearest) ? `outputs.${f.nearest}` : `outputs['${f.nearest}']`),
    next: [f.hint],
  }),
};
