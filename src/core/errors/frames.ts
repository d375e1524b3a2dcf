// Where we stand ourselves is no news: the stack begins at the user's line.
export function framesOf({ stack = '' }: { readonly stack?: string | undefined }): string[] {
  const here = new Error().stack?.split('\n')[1] ?? '';
  const [, own] =
    /((?:file:|\/|\w:\\)[^()]*[\\/])(?:core[\\/]errors|parts)[\\/][^()]*:\d+:\d+/.exec(here) ?? [];
  // What the demonstration isolates lies beside us, and is a user's file all the same.
  const isOurs = (frame: string) =>
    own !== undefined && frame.includes(own) && !frame.includes(`${own}demo.`);
  const frames = stack.split('\n').filter((text) => /^\s+at /.test(text));
  const first = frames.findIndex((frame) => !isOurs(frame));
  return first < 0 ? frames : frames.slice(first);
}
