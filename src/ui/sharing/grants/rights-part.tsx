'use client';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { ChoiceWire } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { LevelChoice } from '../../common/fields/level-choice.tsx';
import { OF_KIND } from '../../common/of-kind.ts';
import rightsPartCss from './rights-part.module.css';

const EXTRAS = ['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const;
/** Of tasks and contacts: nobody speaks from there, gets copies, or puts something forward. */
const EXTRAS_OF_LISTS = ['private', 'speaks', 'shares'] as const;
const PRESETS_SHOWN = ['helper', 'booker', 'arranger', 'delegate', 'steward'] as const;

/** Whether two sets of rights are the same. */
export const same = (a: RightsWire, b: RightsWire): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The choices of what an audience sees and may do: each the server's, with its reason where it isn't open. */
export function RightsPart(props: {
  rights: RightsWire;
  choices: readonly ChoiceWire[];
  audience: 'everyone' | 'link' | 'one';
  kind: CollectionKind;
  fields: Readonly<Record<string, string>>;
  onPick: (group: string, value: string) => void;
}) {
  const { rights, choices, audience, kind, fields, onPick } = props;
  const listed = kind !== 'calendar';
  const of = OF_KIND[kind === 'calendar' ? 'tasks' : kind];
  const t = useTranslations();
  const tl = useTranslations('lines');
  const link = audience === 'link';
  const everyoneRow = audience === 'everyone';
  const reach = reachOf(rights);
  const choice = (group: string, value: string): ChoiceWire | undefined =>
    choices.find((c) => c.group === group && c.value === value);
  const why = (c: ChoiceWire | undefined): string | undefined =>
    c?.barred
      ? tl(`barred.${c.barred as 'giverHoldsLess'}`)
      : c?.needs
        ? tl(`misfit.${c.needs as 'sight'}`)
        : undefined;
  const chooser = (
    group: string,
    label: string,
    as: 'sight' | 'reach',
    value: string | null,
    options: [string, string, string][],
  ) => (
    <LevelChoice
      id={`choose-${group}`}
      label={label}
      as={as}
      value={value}
      levels={options.map(([v, word, help]) => ({
        value: v,
        word,
        help,
        barred: choice(group, v)?.barred != null,
        why: why(choice(group, v)),
      }))}
      onPick={(v) => onPick(group, v)}
    />
  );
  return (
    <>
      {!everyoneRow &&
        !link &&
        !listed &&
        chooser(
          'preset',
          tl('asWhole'),
          'reach',
          PRESETS_SHOWN.find((p) => {
            const c = choice('preset', p);
            return (
              c &&
              same({ ...c.rights, private: rights.private, copies: rights.copies, absence: rights.absence }, rights)
            );
          }) ?? null,
          PRESETS_SHOWN.map((p) => [p, t(`presets.${p}`), t(`presetHelp.${p}`)]),
        )}
      {chooser(
        'sight',
        tl('seesHead'),
        'sight',
        rights.sight,
        SIGHTS.filter((s) => !listed || s !== 'busy').map((s) => [
          s,
          !everyoneRow && !link && s === 'nothing' ? t('presets.shutOut') : t(`sights.${s}`),
          t(listed ? `sightHelp${of}.${s}` : `sightHelp.${s}`),
        ]),
      )}
      <FieldWrong text={fields.sight} />
      {!link &&
        chooser(
          'reach',
          tl('mayHead'),
          'reach',
          reach,
          (['look', 'add', 'arrange', 'words'] as const).map((r) => [
            r,
            t(`reaches.${r}`),
            t(listed && r === 'arrange' ? `reachHelp.arrange${of}` : `reachHelp.${r}`),
          ]),
        )}
      {reach === 'words' && (
        <div className="row">
          <FormControlLabel
            label={tl('addRight')}
            control={
              <Switch size="small" checked={rights.add} onChange={(e) => onPick('add', String(e.target.checked))} />
            }
          />
          {(['change', 'remove'] as const).map((right) => (
            <TextField
              key={right}
              select
              label={right === 'change' ? tl('change') : tl('removeRight')}
              value={rights[right]}
              onChange={(e) => onPick(right, e.target.value)}
            >
              {SCOPES.map((s) => (
                <MenuItem key={s} value={s} className={choice(right, s)?.barred ? rightsPartCss.barred : ''}>
                  {t(`scopes.${s}`)}
                </MenuItem>
              ))}
            </TextField>
          ))}
        </div>
      )}
      <FieldWrong text={fields.change ?? fields.remove ?? fields.add} />
      {!everyoneRow && !link && (
        <div className={rightsPartCss.extras}>
          {(listed ? EXTRAS_OF_LISTS.filter((extra) => extra !== 'speaks' || kind === 'folder') : EXTRAS).map(
            (extra) => {
              const on = choice(extra, 'true');
              const no = !rights[extra] ? why(on) : undefined;
              const closed = !rights[extra] && on?.needs != null && !on.barred;
              return (
                <FormControlLabel
                  key={extra}
                  className={rightsPartCss.extra}
                  disabled={closed}
                  control={
                    <Switch
                      size="small"
                      checked={rights[extra]}
                      onChange={(e) => onPick(extra, String(e.target.checked))}
                    />
                  }
                  label={
                    <>
                      {t(`extras.${extra}`)}
                      <small>
                        {fields[extra] ??
                          no ??
                          t(
                            listed && (extra === 'private' || extra === 'speaks')
                              ? `extrasHelp.${extra}${of as 'Folder'}`
                              : `extrasHelp.${extra}`,
                          )}
                      </small>
                    </>
                  }
                />
              );
            },
          )}
        </div>
      )}
    </>
  );
}

/** What is wrong with a field, beneath it. */
export function FieldWrong({ text }: { text: string | undefined }) {
  return text ? <p className="small wrong">{text}</p> : null;
}
