// A picture sent to the server with what is known of it.
import type { ApiErrorBody } from '../../../api/client';
import type { Mark } from './Marked';
import type { Shot } from './usePicture';

/** What the server makes of the picture; an Error whose message is a sentence where it cannot. */
export async function sendPicture<T extends object>(
  path: string,
  shot: Shot | null,
  marks: Mark[],
  known: Record<string, string>,
): Promise<T> {
  if (!shot) throw new Error('There is no picture yet.');
  const query = new URLSearchParams({ marks: marks.map((m) => `${m.x},${m.y}`).join(' '), ...known });
  let answer: Response;
  try {
    const headers = { 'content-type': 'application/octet-stream' };
    answer = await fetch(`${path}?${query}`, { method: 'POST', body: shot.file, headers });
  } catch {
    throw new Error(
      'The picture could not be sent, because Bofta does not answer. Start the program again and try once more.',
    );
  }
  const body: T | ApiErrorBody = await answer.json();
  if ('message' in body) throw new Error(body.message as string);
  return body as T;
}
