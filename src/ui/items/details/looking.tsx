'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { firstName } from '../../common/token.tsx';

const AGAIN_MS = 20_000;

/** Says that an item is open here, looked at or typed into, and who else has it open: for those who may change it. */
export function Looking({ item, types }: { item: string; types: boolean }) {
  const t = useTranslations('looking');
  const doing = types ? ('types' as const) : ('looks' as const);
  const { data } = useQuery({
    queryKey: KEYS.looking(item.split('~')[0], doing),
    queryFn: () => call('sayLooking', { params: { item }, body: { doing } }),
    refetchInterval: AGAIN_MS,
    gcTime: 0,
    retry: false,
  });
  useEffect(() => {
    const gone = () => void call('sayLooking', { params: { item }, body: { doing: 'gone' } }).catch(() => undefined);
    window.addEventListener('pagehide', gone);
    return () => {
      window.removeEventListener('pagehide', gone);
      gone();
    };
  }, [item]);
  if (!data || data.others.length === 0) return null;
  return (
    <p className="small row gap-3" role="status">
      {data.others.slice(0, 3).map(({ name, colour, types: does }) => (
        <span key={name} className={`who-${colour} whose firm`}>
          {t(does ? 'types' : 'looks', { name: firstName(name) })}
        </span>
      ))}
      {data.others.length > 3 && <span className="soft">{t('more', { count: data.others.length - 3 })}</span>}
    </p>
  );
}
