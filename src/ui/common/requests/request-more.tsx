'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { useFrame } from '../frame-context.tsx';

/** The way to ask for more, where something of a calendar is not to be seen or done. Nothing where nobody is signed in who could ask. */
export function RequestMore(props: {
  handle: string;
  name: string;
  calendar?: { readonly key: string; readonly name: string; readonly main: boolean } | undefined;
  has?: RightsWire | undefined;
  /** In a row with little room: a word alone. */
  small?: boolean;
}) {
  const { handle, name, calendar, has, small = false } = props;
  const t = useTranslations('ask');
  const { ask, frame } = useFrame();
  if (!ask || handle === '' || handle === frame.me.handle) return null;
  const label = t('moreOf', { name });
  return (
    <Button
      variant={small ? 'text' : 'outlined'}
      aria-label={label}
      title={small ? label : undefined}
      sx={small ? { minHeight: 0, minWidth: 0, p: 0, fontSize: 11, lineHeight: 1.3, fontWeight: 400 } : {}}
      onClick={(event) => {
        event.stopPropagation();
        ask({
          people: [{ handle, name }],
          calendar: calendar && !calendar.main ? { key: calendar.key, name: calendar.name } : null,
          has: has ?? null,
        });
      }}
    >
      {t(small ? 'moreShort' : 'more')}
    </Button>
  );
}
