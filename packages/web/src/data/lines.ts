import { ApiError } from './api.ts';

/** Sends a body and reads the answer line by line, each of them JSON, as it arrives. */
export async function callLines<T>(
  path: string,
  body: BodyInit,
  type: string,
  signal: AbortSignal,
  onLine: (line: T) => void,
): Promise<void> {
  const response = await fetch(`/api/v1${path}`, {
    method: 'POST',
    headers: { 'Content-Type': type },
    body,
    signal,
  });
  if (!response.ok || response.body === null) {
    const document = (await response.json().catch(() => ({}))) as { detail?: string };
    throw new ApiError(response.status, document.detail ?? `The server answered ${response.status}.`, []);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) if (line !== '') onLine(JSON.parse(line) as T);
  }
}
