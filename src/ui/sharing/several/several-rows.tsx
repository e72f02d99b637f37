import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import type { ChangesAnswer } from '@/contract/sharing/changes.ts';
import { useLevelName } from '../../common/requests/level-name.ts';
import { isNone, type Level, NAMED } from './levels.ts';
import type { Meant } from './meant.ts';

/** So many are shown one by one, each with a level of their own to choose. */
const MOST_SHOWN = 60;

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
    <div>
      <ul className="plain list gap-2 stack" aria-label={t('severalList')}>
        {rows.slice(0, MOST_SHOWN).map((row) => (
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
      {rows.length > MOST_SHOWN && (
        <p className="small soft">{t('severalMore', { count: rows.length - MOST_SHOWN })}</p>
      )}
    </div>
  );
}
