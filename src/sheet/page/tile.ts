import { make } from '../../page/make';
import { failuresOf } from '../model';
import { addressOf, idOf, viewOf, type Chosen, type Shown } from './shown';

// Pictures are decoded when they come into view.
const seen = new IntersectionObserver(
  (entries) => {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting) continue;
      const image = target as HTMLImageElement;
      image.src = addressOf(image.dataset['file']!);
      seen.unobserve(image);
    }
  },
  { rootMargin: '600px' },
);

/** A state among the others. */
export function makeTile(shown: Shown, chosen: Chosen): HTMLElement {
  const { component, state } = shown;
  const view = viewOf(state, chosen);
  const failures = failuresOf(state);
  const outcome = state.views
    .map(({ comparison }) => comparison?.outcome)
    .find((one) => one && one !== 'same');
  const look = outcome ? 'changed' : failures.length > 0 ? 'wrong' : '';
  const tile = make('button', { className: `tile ${look}`, type: 'button' });
  tile.append(
    make(
      'span',
      { className: 'frame' },
      view?.picture
        ? makePicture(view.picture, `${component.component}: ${state.name}`)
        : make('span', { className: 'none', textContent: view?.failure?.code ?? 'It was not drawn' }),
    ),
    make(
      'span',
      { className: 'words' },
      make('span', { className: 'name', textContent: state.name }),
      ...(state.milliseconds === undefined
        ? []
        : [make('span', { className: 'time', textContent: `${Math.round(state.milliseconds)} ms` })]),
      makeNotes(shown, outcome),
    ),
  );
  tile.addEventListener('click', () => (location.hash = encodeURIComponent(idOf(shown))));
  return tile;
}

function makePicture(file: string, alt: string): HTMLImageElement {
  const image = make('img', { alt });
  image.dataset['file'] = file;
  seen.observe(image);
  return image;
}

function makeNotes({ state }: Shown, outcome: 'changed' | 'new' | undefined | 'same'): HTMLElement {
  const problems = Math.max(0, ...state.views.map((view) => view.problems?.length ?? 0));
  const failure = failuresOf(state)[0];
  const notes = make('span', { className: 'notes' });
  if (outcome === 'changed') notes.append(make('span', { className: 'note-changed' }, 'changed '));
  else if (outcome === 'new') notes.append(make('span', { className: 'note-changed' }, 'not accepted yet '));
  else if (failure) notes.append(make('span', { className: 'note-bad' }, `${failure.code ?? 'failed'} `));
  if (problems > 0) notes.append(make('span', { className: 'note-mark' }, `${problems} hard to access`));
  return notes;
}
