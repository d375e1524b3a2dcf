/** What a real browser does otherwise than a simulated page, or cannot be asked for, by the name of the test. */
export const differing: Readonly<Record<string, string>> = {
  'two subjects at once › are answered each by its own routes, also after an await and by a timer':
    'a browser does not tell who started a chain of promises',
  'no request leaves the machine': 'a page has no server that could be reached',
  'virtual time › begins at a date, in a zone, and everything that tells the time agrees':
    'a browser keeps its time zone',
  'virtual time › is real again afterwards, and nothing of it runs on': 'a browser keeps its time zone',
  'virtual time › is shared by subjects that are up at once': 'a browser keeps its time zone',
  'what is left behind › fails the test: a watch over the position':
    "it is the browser's own, which tells nobody",
  "what is left behind › fails the test: a timer of rxjs's":
    'Vite may put a package into a file whose name does not tell which one it was',
  'the page › has its width': 'SIM-PAGE-REAL: the window belongs to the driver of the browser',
  'the page › has a query of its width': 'SIM-PAGE-REAL: the window belongs to the driver of the browser',
  'the page › has dark colours': 'SIM-PAGE-REAL: the colours belong to the driver of the browser',
  'the page › has less motion': 'SIM-PAGE-REAL: the motion belongs to the driver of the browser',
  'the page › has a permission': "until the test sets one, the browser's own is told",
  'the page › is as it was after each test, also what the component wrote itself':
    'until the test sets a clipboard, the real one is asked, and a page without a person may not read it',
  'the page › gives an element a size, and brings it into view': 'SIM-PAGE-REAL: the layout decides',
  'the page › plays media without a sound': 'the real ones are played, and need a file',
  'the page › is shared by subjects that are up at once, so that they must agree':
    'SIM-PAGE-REAL: the test sets a width',
  'the end of a test › leaves the heap as it was after a thousand subjects':
    'a page cannot collect its garbage',
};

/** Why a test differs; undefined where it should not. */
export const reasonFor = (name: string): string | undefined =>
  Object.entries(differing).find(([key]) => name.includes(key))?.[1];
