import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { ChangesAnswer } from '@/contract/sharing/changes.ts';
import { plain } from '../../common/fields/people-options.tsx';
import { useLevelName } from '../../common/requests/level-name.ts';
import { isNone, type Level, NAMED } from './levels.ts';
import type { Meant } from './meant.ts';

/** So many are shown one by one, each with a level of their own to choose; as many more at each press. */
const SHOWN_AT_ONCE = 60;
/** A longer list has a field to look for somebody by name. */
const SEEN_AT_A_GLANCE = 12;

/** What one of the list comes to: what they have now, and then. */
export interface RowComesTo {
  readonly meant: Meant;
  readonly level: Level;
  /** The level is their own, and not the list's. */
  readonly own: string | null;
  readonly result: ChangesAnswer['results'][number] | undefined;
}

/** Whom a list means, one by one: what each has now and then, and another level for those who are to have one. */
export function SeveralRows(props: {
  rows: readonly RowComesTo[];
  onLevel: (meant: Meant, level: string | null) => void;
}) {
  const { rows, onLevel } = props;
  const t = useTranslations('lines');
  const presets = useTranslations('presets');
  const levelName = useLevelName();
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const [named, setNamed] = useState('');
  const found = rows.filter(({ meant }) => plain(meant.name).includes(plain(named.trim())));
  const more = Math.max(0, found.length - shown);
  const said = ({ meant, level, result }: RowComesTo): string => {
    const named = level === 'back' ? '' : levelName(level);
    if (meant.members !== null)
      return level === 'back'
        ? t('severalGroupBack', { count: meant.members })
        : t('severalGroup', { count: meant.members, what: named, none: isNone(level) ? 'yes' : 'no' });
    if (result?.had && result.has)
      return t('severalThen', { before: levelName(result.had), after: levelName(result.has) });
    return level === 'back' ? '' : t('severalNew', { after: named });
  };
  return (
    <div className="gap-2 stack">
      {rows.length > SEEN_AT_A_GLANCE && (
        <TextField
          size="small"
          label={t('severalFind', { count: rows.length })}
          value={named}
          onChange={(e) => setNamed(e.target.value)}
          helperText={found.length === 0 ? t('severalFindNone') : undefined}
        />
      )}
      <ul className="plain list gap-2 stack" aria-label={t('severalList')}>
        {found.slice(0, shown).map((row) => (
          <li key={row.meant.word} className="gap-2 stack">
            <span className="may-shrink">
              <b>{row.meant.name}</b> <span className="soft">{said(row)}</span>
            </span>
            <TextField
              select
              size="small"
              value={row.own ?? ''}
              slotProps={{
                select: { displayEmpty: true, 'aria-label': t('severalLevelOf', { name: row.meant.name }) } as object,
              }}
              onChange={(e) => onLevel(row.meant, e.target.value === '' ? null : e.target.value)}
            >
              <MenuItem value="">{t('severalAsAll')}</MenuItem>
              {NAMED.map((name) => (
                <MenuItem key={name} value={name}>
                  {presets(name)}
                </MenuItem>
              ))}
              <MenuItem value="back">{t('severalBack')}</MenuItem>
            </TextField>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <div className="row">
          <Button size="small" onClick={() => setShown(shown + SHOWN_AT_ONCE)}>
            {t('severalNext', { count: Math.min(more, SHOWN_AT_ONCE) })}
          </Button>
          <span className="small soft">{t('severalMore', { count: more })}</span>
        </div>
      )}
    </div>
  );
}
