'use client';
import Button from '@mui/material/Button';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ChoiceWire, GrantWire, PreviewAnswer, SightlineRow } from '@/contract/sharing/sharing.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { DAY } from '../common/times.ts';
import { audienceParam } from './audience-param.ts';
import { type Undo, undoOf } from './grants/undo-grant.ts';

/** What a row sees, changed where it stands and taken back in one press. What it comes to is the server's to say; whoever was told is told. */
export function RowLevel(props: {
  calendar: string;
  row: SightlineRow;
  grant: GrantWire;
  onDone: (text: string, undo?: Undo) => Promise<void>;
}) {
  const { calendar, row, grant, onDone } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { attempt, busy } = useActingWithToast();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const range = { from: dateText(today), to: dateText(today + DAY), zone: style.zone };
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'row', audienceParam(row.audience), grant.key),
    queryFn: () =>
      call('previewAccess', {
        params: { calendar },
        body: { audience: row.audience, rights: grant.rights, seen: grant.key, range },
      }) as Promise<PreviewAnswer>,
    enabled: anchor !== null,
  });
  const name = row.who.name;
  const choose = async (choice: ChoiceWire) => {
    setAnchor(null);
    await attempt(async () => {
      const body = { audience: row.audience, rights: choice.rights, seen: grant.key, span: null };
      const given = await call('giveAccess', { params: { calendar }, body });
      const what = choice.value === 'nothing' ? t('presets.shutOut') : t(`sights.${choice.value as 'busy'}`);
      await onDone(t('lines.saved', { name, what }), undoOf(calendar, row, grant, given, style.zone));
    });
  };
  return (
    <>
      <Button
        variant="text"
        loading={busy}
        aria-haspopup="menu"
        aria-label={t('lines.rowLevel', { name })}
        className="tiny"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        ▾
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null && data !== undefined} onClose={() => setAnchor(null)}>
        {SIGHTS.map((sight) => {
          const choice = data?.choices.find((c) => c.group === 'sight' && c.value === sight);
          const word = sight === 'nothing' ? t('presets.shutOut') : t(`sights.${sight}`);
          return (
            <MenuItem
              key={sight}
              selected={grant.rights.sight === sight}
              disabled={!choice || choice.barred !== null || choice.needs !== null}
              onClick={() => choice && void choose(choice)}
            >
              <ListItemText
                primary={word}
                secondary={
                  choice?.barred ? t(`lines.barred.${choice.barred as 'giverHoldsLess'}`) : t(`sightHelp.${sight}`)
                }
              />
            </MenuItem>
          );
        })}
      </Menu>
    </>
  );
}
