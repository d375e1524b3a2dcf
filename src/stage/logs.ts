import { Logs, type Log } from '../core/logs';
import { nearest } from '../core/near';
import type { Occasion } from '../core/sandbox';
import { explain } from './errors';
import type { AllOptions } from './options';
import type { Ground } from './ground';

/** What a subject may log, as its options say. */
export const readLogs = ({ logs = [], spareLogs = 0 }: AllOptions): Logs =>
  logs === 'allowed'
    ? new Logs([], true)
    : new Logs(
        logs.map((pattern, at) => ({ pattern, spare: at < spareLogs, met: false })),
        false,
      );

/** What to say of logs that nobody expected, or that were expected and did not happen. */
export function complainOfLogs(stage: Ground, logs: Logs, occasion: Occasion): Error | undefined {
  if (occasion !== 'end') return undefined;
  return explainUnexpected(stage, logs) ?? explainMissed(stage, logs);
}

function explainUnexpected(stage: Ground, logs: Logs): Error | undefined {
  const { name: subject } = stage.setting;
  const unexpected: Log[] = logs.unexpected.splice(0);
  if (unexpected.length === 0) return undefined;
  const fields = { subject, logs: unexpected, expected: logs.expected.map(({ pattern }) => String(pattern)) };
  return explain('SIM-LOG-UNEXPECTED', fields, { chronicle: stage.chronicle });
}

function explainMissed(stage: Ground, { missed, heard }: Logs): Error | undefined {
  if (!missed) return undefined;
  const texts = heard.map(({ text }) => text);
  const pattern = String(missed.pattern);
  const fields = {
    subject: stage.setting.name,
    pattern,
    logged: texts,
    nearest: nearest(pattern.replace(/^\/|\/\w*$/g, ''), texts),
  };
  return explain('SIM-LOG-MISSED', fields, { chronicle: stage.chronicle });
}

/** Makes what is logged during take-down fail the test as well. */
export function watchLateLogs(stage: Ground, logs: Logs): void {
  stage.environment.onLateLog = () => {
    const error = explainUnexpected(stage, logs);
    if (error) stage.environment.fail(error);
  };
}
