import MenuItem from '@mui/material/MenuItem';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Principal } from '@/contract/frame.ts';
import type { Target } from '@/contract/items/targets.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';

interface Targets {
  readonly calendars: readonly Target[];
  readonly cutShort: boolean;
}
const NONE: Targets = { calendars: [], cutShort: false };

/** The calendars one may put something into; none before they are known, or where they aren't `wanted`. */
export function useTargets(wanted = true): Targets & { readonly pending: boolean } {
  const query = useQuery({
    queryKey: KEYS.targets,
    queryFn: () => call('listTargets', {}),
    staleTime: 60_000,
    enabled: wanted,
  });
  return { ...(query.data ?? NONE), pending: query.isPending };
}

/** Somebody's main calendar, as something is put into it. */
export const mainTarget = ({ calendar: key, handle, name, colour, own }: Principal): Target => ({
  key,
  name,
  main: true,
  owner: { handle, name, colour, own },
});

/**
 * What the calendars may be called in a sentence. A main one goes by its owner's name, a further one by its own, which its owner's may stand before; both
 * also go by what lists call them. A name that several share means the one of whoever the window works for (`handle`); if that isn't one alone, none.
 */
export function useTargetNames(): (calendars: readonly Target[], handle: string) => ReadonlyMap<string, Target> {
  const t = useTranslations('panel');
  return (calendars, handle) => {
    const named = new Map<string, Target[]>();
    for (const target of calendars) {
      const { name, main, owner } = target;
      const first = firstName(owner.name);
      const whose = owner.own ? t('moveMine') : t('moveInto', { name: first });
      for (const one of main ? [first, owner.name, whose] : [name, `${first}: ${name}`, `${whose}: ${name}`])
        named.set(one, [...(named.get(one) ?? []), target]);
    }
    const one = (list: readonly Target[]) => {
      const theirs = list.filter(({ owner }) => owner.handle === handle);
      return list.length === 1 ? list[0] : theirs.length === 1 ? theirs[0] : undefined;
    };
    return new Map([...named].flatMap(([name, list]) => [one(list)].flatMap((t) => (t ? [[name, t] as const] : []))));
  };
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
