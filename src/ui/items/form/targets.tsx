import MenuItem from '@mui/material/MenuItem';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Target } from '@/contract/items/targets.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';

interface Targets {
  readonly calendars: readonly Target[];
  readonly cutShort: boolean;
}
const NONE: Targets = { calendars: [], cutShort: false };

/** The calendars one may put something into; none before they are known. */
export function useTargets(): Targets {
  const query = useQuery({ queryKey: KEYS.targets, queryFn: () => call('listTargets', {}), staleTime: 60_000 });
  return query.data ?? NONE;
}

/** Those calendars as the choices of a list: whose each is, and which of theirs where it isn't their main one. */
export function useTargetItems() {
  const t = useTranslations('panel');
  return ({ calendars, cutShort }: Targets): ReactElement[] => {
    const items = calendars.map(({ key, main, name, owner }) => {
      const whose = owner.own ? t('moveMine') : t('moveInto', { name: firstName(owner.name) });
      return (
        <MenuItem key={key} value={key}>
          {main ? whose : `${whose}: ${name}`}
        </MenuItem>
      );
    });
    if (!cutShort) return items;
    const more = (
      <MenuItem key="more" value="more" disabled>
        {t('moveMore', { count: calendars.length })}
      </MenuItem>
    );
    return [...items, more];
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
