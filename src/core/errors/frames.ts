type Stacked = { readonly stack?: string | undefined };

/** Tells whether a line of a stack is in our own code. */
function ours(): (frame: string) => boolean {
  const here = new Error().stack?.split('\n')[1] ?? '';
  const [, own] =
    /((?:file:|\/|\w:\\)[^()]*[\\/])(?:core[\\/]errors|parts)[\\/][^()]*:\d+:\d+/.exec(here) ?? [];
  // The components of the demo are in our folder, but count as the user's files.
  return (frame) => own !== undefined && frame.includes(own) && !frame.includes(`${own}demo.`);
}

const linesOf = ({ stack = '' }: Stacked) => stack.split('\n').filter((text) => /^\s+at /.test(text));

/** The frames of a stack without our own at its beginning, so that it starts at the user's line. */
export function framesOf(error: Stacked): string[] {
  const isOurs = ours();
  const frames = linesOf(error);
  const first = frames.findIndex((frame) => !isOurs(frame));
  return first < 0 ? frames : frames.slice(first);
}

/** The frames of a stack without any of our own. */
export function foreignFramesOf(error: Stacked): string[] {
  const isOurs = ours();
  return linesOf(error).filter((frame) => !isOurs(frame));
}
