'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { useFrame } from '../frame-context.tsx';

/** The way to ask for more, where something is not to be seen or done. Nothing where nobody is signed in who could ask. */
export function RequestMore(props: {
  handle: string;
  name: string;
  /** What it is of theirs: a calendar, unless it is said. */
  of?:
    | { readonly key: string; readonly name: string; readonly main: boolean; readonly kind?: CollectionKind }
    | undefined;
  has?: RightsWire | undefined;
  /** In a row with little room: a word alone. */
  small?: boolean;
}) {
  const { handle, name, of, has, small = false } = props;
  const t = useTranslations('ask');
  const { requestAccess, frame } = useFrame();
  if (!requestAccess || handle === '' || handle === frame.me.handle) return null;
  const label = t('moreOf', { name });
  return (
    <Button
      variant={small ? 'text' : 'outlined'}
      aria-label={label}
      title={small ? label : undefined}
      className={small ? 'slim light' : ''}
      onClick={(event) => {
        event.stopPropagation();
        requestAccess({
          people: [{ handle, name }],
          further: of && !of.main ? { key: of.key, name: of.name, kind: of.kind ?? 'calendar' } : null,
          has: has ?? null,
        });
      }}
    >
      {t(small ? 'moreShort' : 'more')}
    </Button>
  );
}
