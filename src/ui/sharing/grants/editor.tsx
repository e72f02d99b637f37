'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AudienceWire, GrantWire, SightlineRow, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY, dayMonth } from '../../common/times.ts';
import editorCss from './editor.module.css';
import { GrantEditor } from './grant-editor.tsx';
import type { Undo } from './undo-grant.ts';

/** One audience: its grants, the standing one and those for a time, and the one that is looked at or made. */
export function Editor(props: {
  calendar: string;
  row: SightlineRow;
  lines: SightlinesAnswer;
  name: string;
  onSaved: (text: string, audience?: AudienceWire, undo?: Undo) => Promise<void>;
  onGone: () => void;
}) {
  const { calendar, row, lines, name, onSaved, onGone } = props;
  const t = useTranslations('lines');
  const { style } = useFrame();
  const standing = row.grants.find((g) => g.from === null && g.until === null);
  const dated = row.grants.filter((g) => g !== standing);
  const first = standing || dated.length === 0 ? 'standing' : (dated[0]?.key ?? 'standing');
  const [chosen, setChosen] = useState<string | null>(null);
  const known = chosen === 'standing' || chosen === 'new' || dated.some((g) => g.key === chosen);
  const part = known && chosen !== null ? chosen : first;
  const grant = part === 'standing' ? standing : dated.find((g) => g.key === part);
  const day = (instant: string, back = 0) => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
  const span = (g: GrantWire): string =>
    g.state === 'ended'
      ? t('ended', { date: day(g.until ?? '', DAY / 2) })
      : [
          g.from && g.state === 'toCome' ? t('toCome', { date: day(g.from) }) : null,
          g.until ? t('ends', { date: day(g.until, DAY / 2) }) : null,
        ]
          .filter(Boolean)
          .join(', ');
  const chips: [string, string][] = [
    ...(standing || dated.length === 0 || part === 'standing' ? [['standing', t('standing')] as [string, string]] : []),
    ...dated.map((g): [string, string] => [g.key, span(g)]),
    ...(row.audience.kind === 'everyone' || row.grants.length === 0
      ? []
      : [['new', t('addForTime')] as [string, string]]),
  ];
  return (
    <GrantEditor
      key={part}
      calendar={calendar}
      row={row}
      grant={grant ?? null}
      dated={part !== 'standing'}
      lines={lines}
      name={name}
      chips={
        chips.length > 1 ? (
          <fieldset className={`row ${editorCss.bare}`} aria-label={t('when')}>
            {chips.map(([key, text]) => (
              <Button
                key={key}
                variant={key === part ? 'outlined' : 'text'}
                aria-pressed={key === part}
                onClick={() => setChosen(key)}
              >
                {text}
              </Button>
            ))}
          </fieldset>
        ) : null
      }
      onSaved={async (text, audience, undo) => {
        await onSaved(text, audience, undo);
        // A grant that was made or given other dates goes under a new key: the audience is shown as it stands now, unless
        // something else was turned to meanwhile.
        setChosen((now) => (now === chosen && now !== 'standing' ? null : now));
      }}
      onTaken={async (text, undo) => {
        await onSaved(text, undefined, undo);
        setChosen((now) => (now === chosen ? null : now));
        if (row.grants.length <= 1) onGone();
      }}
    />
  );
}
