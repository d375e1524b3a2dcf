import type { SimulacraError } from 'simulacra';
import { role, takeDown, text, type Subject } from 'simulacra';
import type { Kit } from './specification';
import type { Play } from './time';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;
type Show = (text: string) => void;

const watching = (target: () => EventTarget, type: string, read: () => unknown) => (show: Show) => {
  const tell = () => show(String(read()));
  tell();
  target().addEventListener(type, tell);
  return () => target().removeEventListener(type, tell);
};
const media = (query: string) => (show: Show) => {
  const list = matchMedia(query);
  const tell = () => show(String(list.matches));
  tell();
  list.addEventListener('change', tell);
  return () => list.removeEventListener('change', tell);
};
const reading = (read: () => unknown) => (show: Show) => show(String(read()));

/** What a component sees of its page: at first, and after a change. */
const seen: Record<string, { start: Play['start']; page: Any; shown: string; set?: Any; then?: string }> = {
  'its width': {
    start: watching(
      () => window,
      'resize',
      () => innerWidth,
    ),
    page: { width: 400 },
    shown: '400',
    set: { width: 1200 },
    then: '1200',
  },
  'a query of its width': {
    start: media('(min-width: 600px)'),
    page: { width: 400 },
    shown: 'false',
    set: { width: 800 },
    then: 'true',
  },
  'dark colours': {
    start: media('(prefers-color-scheme: dark)'),
    page: { dark: true },
    shown: 'true',
    set: { dark: false },
    then: 'false',
  },
  'less motion': {
    start: media('(prefers-reduced-motion)'),
    page: { reducedMotion: true },
    shown: 'true',
    set: { reducedMotion: false },
    then: 'false',
  },
  'whether there is a connection': {
    start: watching(
      () => window,
      'online',
      () => navigator.onLine,
    ),
    page: { online: false },
    shown: 'false',
    set: { online: true },
    then: 'true',
  },
  'the language': {
    start: watching(
      () => window,
      'languagechange',
      () => [navigator.language, (1234.5).toLocaleString(), new Intl.NumberFormat().format(0.5)].join(' '),
    ),
    page: { language: 'de' },
    shown: 'de 1.234,5 0,5',
    set: { language: 'en' },
    then: 'en 1,234.5 0.5',
  },
  'a date in the language': {
    start: reading(() => new Date(Date.UTC(2031, 4, 4, 12)).toLocaleDateString(undefined, { month: 'long' })),
    page: { language: 'fr' },
    shown: 'mai',
  },
  'whether it can be seen': {
    start: watching(
      () => document,
      'visibilitychange',
      () => `${document.visibilityState} ${document.hidden}`,
    ),
    page: { visible: false },
    shown: 'hidden true',
    set: { visible: true },
    then: 'visible false',
  },
  'the storage, and what another page writes there': {
    start: watching(
      () => window,
      'storage',
      () => localStorage.getItem('units'),
    ),
    page: { storage: { units: 'pounds' } },
    shown: 'pounds',
    set: { storage: { units: null } },
    then: 'null',
  },
  'the session, cookies and title': {
    start: reading(() => [sessionStorage.getItem('keeper'), document.cookie, document.title].join(', ')),
    page: { session: { keeper: 'Imke' }, cookies: { yard: 'north' }, title: 'Apiary' },
    shown: 'Imke, yard=north, Apiary',
  },
  'the address': {
    start: watching(
      () => window,
      'popstate',
      () => location.pathname + location.search,
    ),
    page: { location: '/hives/h1?tab=queen' },
    shown: '/hives/h1?tab=queen',
    set: { location: '/hives' },
    then: '/hives',
  },
  'the position': {
    start: (show) => {
      const tell = ({ coords }: GeolocationPosition) => show(`${coords.latitude} ± ${coords.accuracy}`);
      const watch = navigator.geolocation.watchPosition(tell, ({ code }) => show(`code ${code}`));
      return () => navigator.geolocation.clearWatch(watch);
    },
    page: { position: { latitude: 47.1, longitude: 8.5 } },
    shown: '47.1 ± 10',
    set: { position: null },
    then: 'code 2',
  },
  'that it may not know the position': {
    start: (show) =>
      navigator.geolocation.getCurrentPosition(
        () => show('known'),
        ({ code }) => show(`code ${code}`),
      ),
    page: { permissions: { geolocation: 'denied' }, position: { latitude: 1, longitude: 1 } },
    shown: 'code 1',
  },
  'a permission': {
    start: (show) => {
      void navigator.permissions.query({ name: 'geolocation' }).then((status) => {
        show(status.state);
        status.addEventListener('change', () => show(status.state));
      });
    },
    page: {},
    shown: 'prompt',
    set: { permissions: { geolocation: 'granted' } },
    then: 'granted',
  },
  'the clipboard': {
    start: (show) => void navigator.clipboard.readText().then(show),
    page: { clipboard: 'Anemone' },
    shown: 'Anemone',
  },
};

const refused: Record<string, [page: Any, code: string, says: RegExp]> = {
  'a setting that there is not': [{ darkMode: true }, 'SIM-OPTION-UNKNOWN', /dark/],
  'a width that is none': [{ width: '400px' }, 'SIM-PAGE-SETTING', /a number of pixels from 0/],
  'a language that is none': [{ language: 'german' }, 'SIM-PAGE-SETTING', /BCP 47/],
  'an address of another origin': [{ location: 'https://meadow.example/' }, 'SIM-PAGE-SETTING', /own origin/],
  'a place beyond the pole': [{ position: { latitude: 91, longitude: 0 } }, 'SIM-PAGE-SETTING', /in degrees/],
  'a permission that is none': [{ permissions: { midi: 'yes' } }, 'SIM-PAGE-SETTING', /'granted'/],
};

/** The chapter of the specification about what the page is like. */
export function housed({ isolate, components: { Live, Runner } }: Kit): void {
  const live = (play: Play, page?: Any): Promise<Subject<Any>> => isolate(Live, { props: { play }, page });
  const shown = (subject: Subject<Any>) => subject.find(role('status')).textContent;

  describe('the page', () => {
    it.each(Object.entries(seen))('has %s', async (_, { start, page, shown: first, set, then }) => {
      const subject = await live({ start } as Play, page);
      expect(shown(subject)).toBe(first);
      if (!set) return;
      await subject.page.set(set);
      expect(shown(subject)).toBe(then);
      expect(subject.chronicle.of('changed')).toHaveLength(1);
    });

    it('is as it was after each test, also what the component wrote itself', async () => {
      const read = async () => [
        ...[
          innerWidth,
          navigator.onLine,
          navigator.language,
          document.hidden,
          document.title,
          document.cookie,
        ],
        ...[location.href, localStorage.length, sessionStorage.length, (1.5).toLocaleString()],
        ...[matchMedia('(prefers-color-scheme: dark)').matches, await navigator.clipboard.readText()],
      ];
      const before = await read();
      const write = () => {
        localStorage.setItem('units', 'pounds');
        sessionStorage.setItem('keeper', 'Imke');
        document.cookie = 'yard=north';
        document.title = 'Hives';
        history.pushState(null, '', '/hives');
        void navigator.clipboard.writeText('Clover');
      };
      await live({ start: write }, { width: 1, online: false, language: 'de', visible: false, dark: true });
      expect(await read()).not.toEqual(before);
      await takeDown();
      expect(await read()).toEqual(before);
    });

    it('breaks every request while there is no connection', async () => {
      const ask = () => fetch('/api/hives').then(({ status }) => status);
      const network = { 'GET /api/hives': [] };
      const runner = await isolate(Runner, { props: { work: ask }, network, page: { online: false } });
      expect(runner).toShow(text('caught: Failed to fetch'));
      await runner.page.set({ online: true });
      await runner.click(role('button', 'Run'));
      expect(runner).toShow(text('200'));
      expect(runner.requests.map(({ status }) => status)).toEqual([0, 200]);
    });

    it('gives an element a size, and brings it into view', async () => {
      const subject = await live({
        start: (show) => {
          const output = document.querySelector('output')!;
          const sizes = new ResizeObserver(([entry]) => show(`${entry!.contentRect.width} wide`));
          const places = new IntersectionObserver(([entry]) => show(`in view: ${entry!.intersectionRatio}`));
          sizes.observe(output);
          places.observe(output);
          return () => [sizes, places].forEach((one) => one.disconnect());
        },
      });
      expect(shown(subject)).toBe('in view: 1');
      await subject.page.resize(role('status'), { width: 320, height: 40 });
      expect(shown(subject)).toBe('320 wide');
      expect(subject.find(role('status')).offsetWidth).toBe(320);
      await subject.page.inView(role('status'), false);
      expect(shown(subject)).toBe('in view: 0');
    });

    it('keeps what is shown outside of it', async () => {
      const notify = (show: Show) => {
        new Notification('Clover is about to swarm', { body: 'North yard' });
        show(Notification.permission);
      };
      const page = { permissions: { notifications: 'granted' } };
      const subject = await live({ start: notify }, page);
      expect(shown(subject)).toBe('granted');
      expect(subject.page.notifications).toEqual([{ title: 'Clover is about to swarm', body: 'North yard' }]);
    });

    it('plays media without a sound', async () => {
      const subject = await live({
        start: (show) => {
          const audio = document.createElement('audio');
          audio.addEventListener('playing', () => show(`paused: ${audio.paused}`));
          void audio.play();
        },
      });
      expect(shown(subject)).toBe('paused: false');
    });

    it.each(Object.entries(refused))('refuses %s', async (_, [page, code, says]) => {
      const error = (await live({}, page).catch((thrown: unknown) => thrown)) as SimulacraError;
      expect(error.code).toBe(code);
      expect(error.message.replace(/\s+/g, ' ')).toMatch(says);
      expect(document.body.children.length).toBe(0);
    });

    it('is shared by subjects that are up at once, so that they must agree', async () => {
      await live({}, { width: 400 });
      const error = await live({}, { width: 800 }).catch((thrown: unknown) => thrown);
      expect((error as SimulacraError).code).toBe('SIM-PAGE-SHARED');
      expect(innerWidth).toBe(400);
    });
  });
}
