'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import pageCss from '../../common/page.module.css';
import leastCss from './least.module.css';
import { same } from './rights-part.tsx';

/** The least that would serve whoever was chosen, and why; taken in one press. Nothing is given by that until it is saved. */
export function LeastShown(props: {
  calendar: string;
  audience: AudienceWire;
  who: string;
  rights: RightsWire;
  onTake: (preset: string) => void;
}) {
  const { calendar, audience, who, rights, onTake } = props;
  const t = useTranslations();
  const { data, isPending } = useQuery({
    queryKey: KEYS.calendar(calendar, 'least', audience),
    queryFn: () => call('suggestLevel', { params: { calendar }, body: { audience } }),
    retry: false,
  });
  const least = data?.suggested;
  // Its place is kept from the beginning: the choices below it must not move away under the pointer.
  if (!least)
    return (
      <div className={`${pageCss.card} ${leastCss.place}`} aria-hidden={isPending}>
        {!isPending && <span className="small soft">{t('lines.leastNone', { who })}</span>}
      </div>
    );
  const what = t(`presets.${least.preset as 'full'}`);
  return (
    <div className={`${pageCss.card} ${leastCss.place}`}>
      <p>
        {t('lines.least', { what })}{' '}
        <span className="small soft">
          {t(`lines.leastWhy.${least.kin}`, { who, meets: least.meets })}
          {least.elsewhere !== null && ` ${t('lines.leastElsewhere', { count: least.elsewhere, what })}`}
        </span>
      </p>
      {same(rights, least.rights) ? (
        <span className="small soft">{t('lines.leastTaken')}</span>
      ) : (
        <Button variant="outlined" onClick={() => onTake(least.preset)}>
          {t('lines.leastTake', { what })}
        </Button>
      )}
    </div>
  );
}
