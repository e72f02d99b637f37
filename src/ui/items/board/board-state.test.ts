import { describe, expect, it } from 'vitest';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { type BoardAct, type BoardState, boardAfter, EMPTY_BOARD } from './board-state.ts';

const head = {} as BoardHead;
const item = { id: 'round' } as ItemWire;
const fresh: BoardAct = {
  act: 'form',
  form: { draft: { kind: 'new', start: 0, end: 1 }, head, savedDraft: null, id: 1 },
};
const change: BoardAct = { act: 'form', form: { draft: { kind: 'change', item }, head, savedDraft: null, id: 2 } };
const boardOf = (...acts: BoardAct[]): BoardState => acts.reduce(boardAfter, EMPTY_BOARD);

describe('what stands beside a board', () => {
  it('is one thing: a panel takes the place of details and of a form', () => {
    expect(boardOf({ act: 'open', item: 'round' }, { act: 'panel', panel: 'lanes' })).toMatchObject({
      selected: null,
      sidePanel: { kind: 'panel', panel: 'lanes' },
    });
    expect(boardOf(fresh, { act: 'times', item }).sidePanel).toEqual({ kind: 'times', item });
  });

  it('is the form of something new until that is left, whatever is opened meanwhile', () => {
    const state = boardOf(fresh, { act: 'open', item: 'round' });
    expect(state).toMatchObject({ selected: 'round', sidePanel: { kind: 'form', id: 1 } });
    expect(boardAfter(state, { act: 'close' })).toMatchObject({ selected: 'round', sidePanel: null });
  });

  it('is what another item is, once one is opened over the form of a change', () => {
    expect(boardOf({ act: 'open', item: 'round' }, change, { act: 'open', item: 'other' })).toMatchObject({
      selected: 'other',
      sidePanel: null,
    });
  });

  it('is what was changed again after its form, and nothing after something new was begun and left', () => {
    expect(boardOf({ act: 'open', item: 'round' }, change, { act: 'close' }).selected).toBe('round');
    expect(boardOf({ act: 'open', item: 'round' }, fresh, { act: 'close' })).toMatchObject({
      selected: null,
      sidePanel: null,
    });
  });

  it('goes on while the next clash is shown', () => {
    expect(boardOf(change, { act: 'point', item: 'clash' })).toMatchObject({ selected: 'clash', sidePanel: { id: 2 } });
    expect(boardOf({ act: 'panel', panel: 'at' }, { act: 'point', item: 'clash' }).sidePanel).toBe(null);
  });
});

it('an item that got another id stays selected, one that is gone does not, and others are nobody’s concern', () => {
  const open = boardOf({ act: 'open', item: 'round' });
  expect(boardAfter(open, { act: 'replaced', was: 'round', now: 'apart' }).selected).toBe('apart');
  expect(boardAfter(open, { act: 'replaced', was: 'round', now: null }).selected).toBe(null);
  expect(boardAfter(open, { act: 'replaced', was: 'other', now: null })).toBe(open);
});
