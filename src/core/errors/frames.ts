// Skips our own frames, so that the stack starts at the user's line.
export function framesOf({ stack = '' }: { readonly stack?: string | undefined }): string[] {
  const here = new Error().stack?.split('\n')[1] ?? '';
  const [, own] =
    /((?:file:|\/|\w:\\)[^()]*[\\/])(?:core[\\/]errors|parts)[\\/][^()]*:\d+:\d+/.exec(here) ?? [];
  // The components of the demo are in our folder, but count as the user's files.
  const isOurs = (frame: string) =>
    own !== undefined && frame.includes(own) && !frame.includes(`${own}demo.`);
  const frames = stack.split('\n').filter((text) => /^\s+at /.test(text));
  const first = frames.findIndex((frame) => !isOurs(frame));
  return first < 0 ? frames : frames.slice(first);
}
