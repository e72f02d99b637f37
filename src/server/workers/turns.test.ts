import { expect, it } from 'vitest';
import { GaveUp, TooManyWaiting, Turns } from './turns.ts';

it('one person has one turn at a time, and others’ come before their next', async () => {
  const turns = new Turns(2, 3, 20);
  const order: string[] = [];
  const take = async (who: number, name: string) => {
    const end = await turns.take(who);
    order.push(name);
    return end;
  };
  const first = await take(1, 'one');
  const again = take(1, 'one again');
  const other = await take(2, 'two');
  const third = take(3, 'three');
  other();
  await third;
  expect(order).toEqual(['one', 'two', 'three']);
  first();
  await again;
  expect(order).toEqual(['one', 'two', 'three', 'one again']);
});

it('so many may wait of one person, and so many in all', async () => {
  const turns = new Turns(1, 2, 3);
  await turns.take(1);
  for (const who of [2, 2, 3]) void turns.take(who);
  await expect(turns.take(2)).rejects.toThrow(TooManyWaiting);
  await expect(turns.take(4)).rejects.toThrow(TooManyWaiting);
});

it('what waits can be given up, and leaves its place to the next', async () => {
  const turns = new Turns(1, 2, 5);
  const end = await turns.take(1);
  let giveUp = () => {};
  const given = turns.take(2, (how) => {
    giveUp = how;
  });
  const next = turns.take(3);
  giveUp();
  await expect(given).rejects.toThrow(GaveUp);
  end();
  const last = await next;
  // Once begun there is nothing to give up.
  giveUp();
  last();
  await turns.take(2);
});
