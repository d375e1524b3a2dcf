import { Component, createContext, useContext, type ContextType, type ReactNode } from 'react';
import { SessionContext } from '../../../../examples/react-apiary/src/session';

/* Components that read contexts in each of the ways that there are. */

// Nobody may read it without a provider.
export const Weather = createContext<{ readonly frost: boolean }>(null!);
Weather.displayName = 'Weather';

export const FrostAlert = () => {
  const weather = useContext(Weather);
  return weather.frost ? <p role="alert">Frost tonight</p> : null;
};

export const FrostNote = () => (
  <Weather.Consumer>{(weather) => (weather.frost ? <p role="alert">Frost</p> : null)}</Weather.Consumer>
);

export const FrostParts = () => (
  <Weather.Consumer>{({ frost }) => (frost ? <p role="alert">Frost</p> : null)}</Weather.Consumer>
);

export const FrostOther = ({ hive }: { hive: { name: string } | null }) => (
  <Weather.Consumer>{() => <p>{hive!.name}</p>}</Weather.Consumer>
);

export class FrostSign extends Component {
  static override contextType = Weather;
  declare context: ContextType<typeof Weather>;
  override render() {
    return this.context.frost ? <p role="alert">Frost</p> : null;
  }
}

export class FrostFault extends Component {
  static override contextType = SessionContext;
  override render(): ReactNode {
    throw new RangeError('no frost in June');
  }
}
