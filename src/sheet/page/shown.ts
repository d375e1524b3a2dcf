import type { Scheme, SheetComponent, SheetState, View } from '../model';

/** A state as it is shown. */
export interface Shown {
  readonly component: SheetComponent;
  readonly state: SheetState;
}

/** The screen that is looked at. */
export interface Chosen {
  readonly width: number;
  readonly scheme: Scheme;
}

/** The address of a state on the page. */
export const idOf = ({ component, state }: Shown): string =>
  `${component.file.replace(/\.states\.\w+$/, '')}/${state.name}`;

/** How a state looks on a screen, or on the first one where it was not drawn on that. */
export const viewOf = ({ views }: SheetState, { width, scheme }: Chosen): View | undefined =>
  views.find((view) => view.width === width && view.scheme === scheme) ?? views[0];

let files: Map<string, string> | undefined;

/** The address of a picture: it is in the page itself, or beside it where the page is served. */
export function addressOf(file: string): string {
  files ??= new Map(
    [...document.querySelectorAll<HTMLScriptElement>('script[data-file]')].map((one) => [
      one.dataset['file']!,
      one.textContent!,
    ]),
  );
  const data = files.get(file);
  return data === undefined ? file : `data:image/png;base64,${data}`;
}
