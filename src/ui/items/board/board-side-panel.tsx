'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { takeDraft } from '../../common/fetched/saved-drafts.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { firstName } from '../../common/token.tsx';
import { draftKey, type FormDraft } from '../form/item-values.ts';
import { useBoard } from './board-model.ts';
import type { FormPanel } from './board-state.ts';
import type { Home } from './item-writes.ts';

// What stands beside the board comes after the board itself. Its place is kept: a board that narrows under what is being dragged would put it
// down on another day.
const place = <div className={boardsCss.panel} />;
const ItemForm = later(() => import('../form/item-form.tsx').then((m) => m.ItemForm), place);
const Details = later(() => import('../details/details.tsx').then((m) => m.Details), place);
const SearchPanel = later(() => import('../panels/search-panel.tsx').then((m) => m.SearchPanel), place);
const SidePanel = later(() => import('./side-panel.tsx').then((m) => m.SidePanel), place);

/** What stands beside a board: a form, a panel of the whole calendar, the details of what is selected, or a search. */
export function BoardSidePanel() {
  const { state, head, selected, homeOf, sought, seek } = useBoard();
  const { sidePanel } = state;
  const home = selected ? homeOf(selected) : undefined;
  if (sidePanel?.kind === 'form') return <FormOf form={sidePanel} />;
  if (sidePanel && head) return <SidePanel panel={sidePanel} head={head} />;
  if (selected && home) return <DetailsOf item={selected} home={home} />;
  if (sought !== null && head)
    return <SearchPanel head={head} sought={sought} onSought={seek} onClose={() => seek(null)} />;
  return null;
}

function FormOf({ form }: { form: FormPanel }) {
  const { dispatch, writes, formGone } = useBoard();
  const forwarded = useForwarded();
  const t = useTranslations('board');
  const { draft, head, savedDraft, id } = form;
  const name = firstName(head.owner.name);
  return (
    <ItemForm
      key={id}
      draft={draft}
      savedAs={draftKey(draft, id)}
      savedDraft={savedDraft}
      head={head}
      gone={formGone}
      onClose={() => dispatch({ act: 'close' })}
      onPutForward={() => {
        dispatch({ act: 'close' });
        forwarded(name);
      }}
      onSaved={(answer) => {
        dispatch({ act: 'settle', item: answer.item && 'notes' in answer.item ? answer.item.id : null });
        writes.wrote({ calendar: head.calendar.key, head }, answer, head.own ? t('savedMine') : t('saved', { name }));
      }}
    />
  );
}

function DetailsOf({ item, home }: { item: ItemWire; home: Home }) {
  const { dispatch, writes, wroteSeveral, openForm } = useBoard();
  const forwarded = useForwarded();
  const t = useTranslations();
  const { head } = home;
  const name = firstName(head.owner.name);
  const settle = (item: string | null) => dispatch({ act: 'settle', item });
  return (
    <Details
      key={item.id}
      item={item}
      head={head}
      onClose={() => settle(null)}
      onEdit={(item) => {
        const change = { kind: 'change', item } as const;
        // What was typed about it before is gone on with.
        const savedDraft = takeDraft(draftKey(change, 0))?.data as FormDraft | undefined;
        openForm({ draft: change, head, savedDraft: savedDraft ?? null });
      }}
      onRemove={(scope) => void writes.remove(item, scope)}
      onWrote={(answer) =>
        writes.wrote(home, answer, head.own ? t('board.savedSeriesMine') : t('board.savedSeries', { name }))
      }
      onWroteHere={(answer) => {
        if (answer.item) settle(answer.item.id);
        writes.wrote(home, answer, t('openings.fixedSet'));
      }}
      onFixed={(answer) => {
        settle(answer.items[0]?.id ?? null);
        wroteSeveral(answer, t('openings.fixedNow', { count: answer.written - 1 }));
      }}
      onOpenings={(item) => dispatch({ act: 'times', item })}
      onCopied={(answer) => wroteSeveral(answer, t('picked.copied', { count: answer.written }))}
      onVisibility={(v, scope) => void writes.setVisibility(item, v, scope)}
      onForwardRemoval={() => {
        settle(null);
        forwarded(name);
      }}
    />
  );
}

/** Says that a change was put forward, and to whom. */
function useForwarded() {
  const t = useTranslations('board');
  const { toast } = useFrame();
  const client = useQueryClient();
  return (name: string) => {
    toast({ text: t('putForward', { name }) });
    void client.invalidateQueries({ queryKey: KEYS.suggestions });
  };
}
