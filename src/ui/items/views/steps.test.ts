import { expect, test } from 'vitest';
import { Steps } from './steps.ts';

const at = (token: string) => ({ calendar: 'c', token });

test('several steps are gone back, and on again; what is written anew leaves nothing to do again', () => {
  const steps = new Steps();
  steps.wrote(at('a'));
  steps.wrote(at('b'));
  expect(steps.last()).toEqual(at('b'));
  steps.tookBack('b', at('not b'));
  steps.tookBack('a', at('not a'));
  expect([steps.last(), steps.undone()]).toEqual([undefined, at('not a')]);
  steps.didAgain('not a', at('a again'));
  expect([steps.last(), steps.undone()]).toEqual([at('a again'), at('not b')]);
  steps.wrote(at('c'));
  expect([steps.last(), steps.undone()]).toEqual([at('c'), undefined]);
});
