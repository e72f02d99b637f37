'use client';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { useActing } from '../common/fetched/acting.ts';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';

/**
 * Who is told of the messages of the owner's meetings: the owner, those told of invitations, or both. Who is told at all is chosen at each
 * person; here is what it comes to, as one setting of the calendar.
 */
export function Told(props: { calendar: string; lines: SightlinesAnswer; onSaved: (text: string) => Promise<void> }) {
  const { calendar, lines, onSaved } = props;
  const t = useTranslations();
  const { attempt, refused } = useActing();
  const { told } = lines;
  if (!told || told.others.length === 0) return null;
  const owner = firstName(lines.owner.name);
  const others = told.others.map(firstName).join(', ');
  const set = async (both: boolean) => {
    await attempt(async () => {
      await call('setTold', { params: { calendar }, body: { owner: both } });
      await onSaved(t('told.saved', { who: both ? `${owner}, ${others}` : others }));
    });
  };
  return (
    <section className={`${pageCss.card} gap-3 below-6 stack`} aria-labelledby="told">
      <h3 id="told">{t('told.title', { owner, own: lines.own ? 'yes' : 'no' })}</h3>
      <ToggleButtonGroup
        exclusive
        fullWidth
        size="small"
        aria-labelledby="told"
        value={told.owner ? 'both' : 'others'}
        onChange={(_, value: 'both' | 'others' | null) => value && void set(value === 'both')}
      >
        <ToggleButton value="both">{t('told.both', { owner, others, own: lines.own ? 'yes' : 'no' })}</ToggleButton>
        <ToggleButton value="others">{t('told.others', { others })}</ToggleButton>
      </ToggleButtonGroup>
      {refused && <p className="wrong">{refused}</p>}
      <p className="small soft">{t('told.help', { owner, own: lines.own ? 'yes' : 'no' })}</p>
    </section>
  );
}
