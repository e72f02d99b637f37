import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Target } from '@/contract/items/targets.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';

/** The calendars one may put something into; none before they are known. */
export function useTargets(): readonly Target[] {
  const query = useQuery({ queryKey: KEYS.targets, queryFn: () => call('listTargets', {}), staleTime: 60_000 });
  return query.data?.calendars ?? [];
}

/** What a calendar is called among others: whose it is, and which of theirs where it isn't their main one. */
export function useTargetName() {
  const t = useTranslations('panel');
  return ({ main, name, owner }: Target): string => {
    const whose = owner.own ? t('moveMine') : t('moveInto', { name: firstName(owner.name) });
    return main ? whose : `${whose}: ${name}`;
  };
}

/** The board of a calendar: in the window of whoever owns it where one runs their calendar, else beside one's own. */
export function useBoardOf() {
  const { frame } = useFrame();
  return ({ key, main, owner }: Target): { path: string; query: Record<string, string> } => {
    const run = frame.principals.some((p) => p.handle === owner.handle);
    return {
      path: `/for/${run ? owner.handle : frame.me.handle}/calendar`,
      query: { ...(run ? {} : { of: owner.handle }), ...(main ? {} : { c: key }) },
    };
  };
}
