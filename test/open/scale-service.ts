/** A service of an app: it hears the scales of a yard until it is closed. */
export function hearScales(yard: string): () => void {
  const channel = new BroadcastChannel(`scales of ${yard}`);
  return () => channel.close();
}

/** Asks the scale every four seconds. */
export const pollScale = (ask: () => void): unknown => setInterval(ask, 4000);
