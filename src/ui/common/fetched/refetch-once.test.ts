import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { afterEach, expect, it, vi } from 'vitest';
import { refetchOnce } from './refetch-once.ts';

const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
afterEach(() => client.clear());

/** A query on the screen whose answers are given by hand, in the order they were asked for. */
function onScreen() {
  const askings: { answer: (value: string) => void; fail: (why: Error) => void }[] = [];
  const observer = new QueryObserver(client, {
    queryKey: ['calendar', 'one'],
    queryFn: () => new Promise<string>((answer, fail) => askings.push({ answer, fail })),
  });
  let shown: string | undefined;
  observer.subscribe((result) => {
    shown = result.data;
  });
  return { askings, shown: () => shown };
}

it('what changes while it is first asked for is asked for once more', async () => {
  const { askings, shown } = onScreen();
  expect(askings).toHaveLength(1);
  const done = refetchOnce(client, { queryKey: ['calendar'] });
  askings[0]?.answer('from before the change');
  await vi.waitFor(() => expect(askings).toHaveLength(2));
  askings[1]?.answer('from after it');
  await done;
  expect(shown()).toBe('from after it');
  expect(askings).toHaveLength(2);
});

it('what is on the screen already is asked for once, and what is asked for elsewhere is left alone', async () => {
  const { askings, shown } = onScreen();
  askings[0]?.answer('before');
  await vi.waitFor(() => expect(shown()).toBe('before'));
  const done = refetchOnce(client, { queryKey: ['calendar'] });
  await vi.waitFor(() => expect(askings).toHaveLength(2));
  askings[1]?.answer('after');
  await done;
  await refetchOnce(client, { queryKey: ['people'] });
  expect([shown(), askings.length]).toEqual(['after', 2]);
});

it('a refusal is passed on where it is asked for', async () => {
  const { askings } = onScreen();
  const done = refetchOnce(client, { queryKey: ['calendar'] }, { throwOnError: true });
  askings[0]?.fail(new Error('gone'));
  await expect(done).rejects.toThrow('gone');
});
