/* A declared state that a person tries: alone on a page, with its props and the answers it waits for at hand. */
import { isolateOn } from '../../stage/isolate';
import type { Stage } from '../../stage/stage';
import type { StateData } from '../../stage/state';
import type { Subject } from '../../stage/subject';
import { readStates } from '../../states/sets';
import { failedOf } from '../failed';
import { Panel } from './panel';
import { heldIn } from './held';

/**
 * Brings a state about and leaves it to a person.
 *
 * @param given what a file of states exports
 * @throws SIM-STATES-GIVEN, and what goes wrong while it comes about
 */
export async function tryState(given: unknown, file: string, name: string): Promise<void> {
  const panel = new Panel();
  document.documentElement.append(panel.element);
  const set = readStates(given, `${file}, as a file that declares states,`);
  const state = set.states.find((one) => one.name === name);
  if (!state)
    return panel.tell(`It declares no state "${name}": ${set.states.map((one) => one.name).join(', ')}.`);
  let stage: Stage | undefined;
  const onStage = (one: Stage) => (stage = one);
  try {
    const subject = await isolateOn(set.adapter, state, { onStage }, set.declaredAt);
    show(panel, subject, state, set.states, () => stage!);
  } catch (failure) {
    panel.tell(failedOf(failure).message);
  }
}

function show(
  panel: Panel,
  subject: Subject,
  state: StateData,
  states: readonly StateData[],
  stageOf: () => Stage,
): void {
  const doing = async (work: () => Promise<unknown>) => {
    try {
      await work();
      panel.tell('');
    } catch (failure) {
      panel.tell(failedOf(failure).message);
    }
    draw();
  };
  const held = heldIn(state, states);
  const draw = () =>
    panel.show({
      title: `${subject.name} · ${state.name}`,
      waiting: held.flatMap(({ answer, offers }) =>
        answer.waiting.map((one) => ({
          asked: one.asked,
          offers,
          release: (value: unknown) => doing(() => one.release(value)),
          fail: () => doing(() => one.fail(500)),
        })),
      ),
      chronicle: stageOf().chronicle.toString(100),
    });
  panel.showProps((state.options.props ?? {}) as Record<string, unknown>, (changed) =>
    doing(() => subject.update(changed)),
  );
  draw();
  // What a person does goes on by itself.
  const { history } = stageOf();
  setInterval(() => history.changed && draw(), 300);
}
