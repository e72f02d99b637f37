'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActingWithToast } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { BeforeChoice } from '../../common/fields/before-choice.tsx';

/** How long before an item whoever looks at it is reminded, for themselves alone: saved at once. */
export function Remind({ item }: { item: string }) {
  const { attempt } = useActingWithToast();
  const tr = useTranslations('reminders');
  const query = useQuery({
    queryKey: KEYS.reminders('item', item),
    queryFn: () => call('readItemReminder', { params: { item } }),
    retry: false,
  });
  const wish = query.data;
  // Its place is kept while it comes: what stands below must not move away under the pointer.
  if (query.isPending) return <div className="as-tall" />;
  if (!wish) return null;
  const save = async (body: { usual: true } | { minutes: number | null; byMail: boolean }) => {
    await attempt(async () => {
      await call('setItemReminder', { params: { item }, body });
      await query.refetch();
    });
  };
  return (
    <div className="row">
      <BeforeChoice
        label={tr('me')}
        value={wish.usual ? 'usual' : wish.minutes}
        usual={wish.usually}
        onChange={(v) => void save(v === 'usual' ? { usual: true } : { minutes: v, byMail: wish.byMail })}
      />
      {!wish.usual && wish.minutes !== null && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={wish.byMail}
              onChange={(e) => void save({ minutes: wish.minutes, byMail: e.target.checked })}
            />
          }
          label={tr('byMail')}
          slotProps={{ typography: { variant: 'body2' } }}
        />
      )}
    </div>
  );
}
