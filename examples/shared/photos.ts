/** How much of a photo has gone, from 0 to 1. */
export type Progress = number;

const most = 5_000_000;

/** Why a file cannot be kept as a photo, if it cannot. */
export function doubtOfPhoto({ name, type, size }: File): string | undefined {
  if (!type.startsWith('image/')) return `${name} is no picture`;
  return size > most ? `${name} is larger than 5 MB` : undefined;
}

/** Sends a photo to where the yard's backend wants it, and tells how much has gone. */
export async function* sendPhoto(hiveId: string, photo: File): AsyncGenerator<Progress> {
  const response = await fetch('/api/photos', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ hiveId, name: photo.name }),
  });
  if (!response.ok) throw new Error(`The backend answered ${response.status}`);
  const { url } = (await response.json()) as { url: string };
  yield* put(url, photo);
}

// Only this carrier tells how much has gone.
async function* put(url: string, photo: File): AsyncGenerator<Progress> {
  const request = new XMLHttpRequest();
  const told: Progress[] = [];
  let wake = () => undefined as void;
  let isOver = false;
  request.upload.onprogress = ({ loaded, total }) => {
    told.push(loaded / total);
    wake();
  };
  request.onloadend = () => {
    isOver = true;
    wake();
  };
  request.open('PUT', url);
  request.send(photo);
  for (;;) {
    const next = told.shift();
    if (next !== undefined) yield next;
    else if (isOver) break;
    else await new Promise<void>((resolve) => (wake = resolve));
  }
  if (request.status < 200 || request.status > 299) throw new Error(`The backend answered ${request.status}`);
}
