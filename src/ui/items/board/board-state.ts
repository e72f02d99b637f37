import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import type { Draft, FormDraft } from '../form/item-values.ts';
import type { Walked } from '../views/moving.ts';
import type { GoesInto } from './goes-into.tsx';

/** The panels of a calendar as a whole. */
export type SidePanelName =
  | 'import'
  | 'lanes'
  | 'at'
  | 'removed'
  | 'calendar'
  | 'openings'
  | 'keeps'
  | 'absence'
  | 'tasks';

/** The form of one item: whose calendar it is written into, and what it begins with where that isn't the draft alone. */
export interface FormPanel {
  readonly kind: 'form';
  readonly draft: Draft;
  readonly head: BoardHead;
  readonly savedDraft: FormDraft | null;
  /** Tells one form from the next, so that each begins anew. */
  readonly id: number;
}

/** What stands beside a board, over the details of what is selected. */
export type SidePanelState =
  | FormPanel
  | { readonly kind: 'panel'; readonly panel: SidePanelName }
  /** Another time is looked for, for what stands already. */
  | { readonly kind: 'times'; readonly item: ItemWire };

/** What a board holds beside what it shows of its calendars. */
export interface BoardState {
  /** The item whose details stand beside the board where nothing lies over them, by id. */
  readonly selected: string | null;
  readonly sidePanel: SidePanelState | null;
  /** A time that is only walked over. */
  readonly walked: Walked | null;
  /** What was put down in another lane and waits for a press. */
  readonly goesInto: GoesInto | null;
  /** What is to be said over the board until it is dismissed. */
  readonly notice: string | null;
  /** A calendar in which something new begins as soon as it is known whether one may add there. */
  readonly newIn: string | null;
}

export type BoardAct =
  /** An item is opened: what stood beside the board goes, but for the form of something new. */
  | { readonly act: 'open'; readonly item: string }
  /** An item is shown on the board while a form goes on. */
  | { readonly act: 'point'; readonly item: string }
  /** Nothing lies beside the board but the details of this item, where there is one. */
  | { readonly act: 'settle'; readonly item: string | null }
  | { readonly act: 'form'; readonly form: Omit<FormPanel, 'kind'> }
  | { readonly act: 'panel'; readonly panel: SidePanelName }
  | { readonly act: 'times'; readonly item: ItemWire }
  /** What lies over the details goes. */
  | { readonly act: 'close' }
  /** An item got another id, or is gone. */
  | { readonly act: 'replaced'; readonly was: string; readonly now: string | null }
  | { readonly act: 'walk'; readonly walked: Walked | null }
  | { readonly act: 'goesInto'; readonly goes: GoesInto | null }
  | { readonly act: 'notice'; readonly sentence: string | null }
  | { readonly act: 'newIn'; readonly calendar: string | null };

export const EMPTY_BOARD: BoardState = {
  selected: null,
  sidePanel: null,
  walked: null,
  goesInto: null,
  notice: null,
  newIn: null,
};

/** The board after an act on it. */
export function boardAfter(state: BoardState, act: BoardAct): BoardState {
  const form = state.sidePanel?.kind === 'form' ? state.sidePanel : null;
  switch (act.act) {
    case 'open':
      return { ...state, selected: act.item, sidePanel: form?.draft.kind === 'new' ? form : null };
    case 'point':
      return { ...state, selected: act.item, sidePanel: form };
    case 'settle':
      return { ...state, selected: act.item, sidePanel: null };
    case 'form':
      // After the form of a change comes what it was about; something new is about nothing that stands yet.
      return {
        ...state,
        selected: act.form.draft.kind === 'new' ? null : state.selected,
        sidePanel: { kind: 'form', ...act.form },
      };
    case 'panel':
      return { ...state, selected: null, sidePanel: { kind: 'panel', panel: act.panel } };
    case 'times':
      return { ...state, selected: null, sidePanel: { kind: 'times', item: act.item } };
    case 'close':
      return { ...state, sidePanel: null };
    case 'replaced':
      return state.selected === act.was ? { ...state, selected: act.now } : state;
    case 'walk':
      return { ...state, walked: act.walked };
    case 'goesInto':
      return { ...state, goesInto: act.goes };
    case 'notice':
      return { ...state, notice: act.sentence };
    case 'newIn':
      return { ...state, newIn: act.calendar };
    default:
      return act satisfies never;
  }
}
