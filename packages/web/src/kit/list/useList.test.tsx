import { beforeAll, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { networkOf } from '../../../../core/src/testing/testNetwork.ts';
import { pressNamed, show, withSizes } from '../../testing/testScreen.tsx';
import { useList, type ListCall, type ListRead } from './useList.ts';

beforeAll(withSizes);

const nothing: ListRead = {
  ...{ headed: true, results: [], alsoMade: '', problem: null, first: [], rows: 0, written: false },
};
/** What was sent and is not answered yet. */
let sent: { call: ListCall<null>; answer: (read: ListRead) => void; fail: (error: Error) => void } | null =
  null;

function Bring(): ReactNode {
  const list = useList<ListRead, null>(
    (call) =>
      new Promise((answer, fail) => {
        sent = { call, answer, fail };
      }),
    { one: 'cable', many: 'cables', onWritten: () => undefined },
  );
  const { busy, trouble, read } = list;
  return (
    <>
      <button type="button" onClick={() => void list.take('cables.csv', new Uint8Array(), null)}>
        Take
      </button>
      <button type="button" onClick={list.stop}>
        Stop
      </button>
      <p role="status">
        {busy === null
          ? (trouble ?? (read === null ? 'idle' : 'read'))
          : busy.stopping
            ? 'stopping'
            : 'reading'}
      </p>
    </>
  );
}
const status = (): string => screen.getByRole('status').textContent ?? '';

test('asked to stop it says so at once, and what came of it once that is known', async () => {
  await show(<Bring />, { network: networkOf({}) });
  pressNamed('Take');
  await waitFor(() => expect(status()).toBe('reading'));
  pressNamed('Stop');
  await waitFor(() => expect(status()).toBe('stopping'));
  expect(sent?.call.signal.aborted).toBe(true);
  // Word of how far it is does not take that back.
  sent?.call.onProgress({ done: 1, of: 9, ahead: 0, writing: false });
  await waitFor(() => expect(status()).toBe('stopping'));
  sent?.fail(new DOMException('Stopped', 'AbortError'));
  await waitFor(() => expect(status()).toBe('Stopped: nothing was written.'));
  // It was done before it could be stopped: that is told, not that it stopped.
  pressNamed('Take');
  await waitFor(() => expect(status()).toBe('reading'));
  pressNamed('Stop');
  sent?.answer(nothing);
  await waitFor(() => expect(status()).toBe('read'));
});
