import { useRouter } from 'next/navigation';
import type { Target } from '@/contract/items/targets.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { saveDraft } from '../../common/fetched/saved-drafts.ts';
import { useFrame } from '../../common/frame-context.tsx';
import type { FormDraft } from './item-values.ts';
import { mainTarget, useBoardOf } from './targets.tsx';

/** Opens a form filled in with something, in a calendar; `of` names what it is a copy of. Nothing is saved before the form is. */
export function useOpenCopy() {
  const router = useRouter();
  const { style } = useFrame();
  const boardOf = useBoardOf();
  return (target: Target, data: FormDraft, of: { id: string; title: string }) => {
    const { path, query } = boardOf(target);
    const key = `new copy ${of.id} ${toWall(style.zone, Date.now())}`;
    const href = `${path}?${new URLSearchParams({ week: dateText(data.start), kept: key, ...query })}`;
    const { name, colour } = target.owner;
    saveDraft({ key, title: of.title, owner: name, colour, href, data });
    router.push(href);
  };
}

/** One’s own calendar, as something is put into it. */
export function useMine(): Target | null {
  const { frame } = useFrame();
  const mine = frame.principals.find((p) => p.own);
  return mine ? mainTarget(mine) : null;
}
