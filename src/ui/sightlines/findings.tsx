'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Finding } from '@/contract/access.ts';
import { call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { said } from '../common/refusal.ts';
import { dayMonth, whenText } from '../common/times.ts';
import { useFrame } from '../frame/frame-context.tsx';
import { NOTHING } from './grant-editor.tsx';

/** What is more open than it should be, each with its reason and the one step that mends it. */
export function Findings(props: {
  calendar: string;
  onMended: (text: string, undo?: () => Promise<void>) => Promise<void>;
}) {
  const { calendar, onMended } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const [open, setOpen] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const { data } = useQuery({
    queryKey: ['calendar', calendar, 'findings'],
    queryFn: () => call('readFindings', { params: { calendar } }),
  });
  const findings = data?.findings ?? [];
  if (findings.length === 0) return null;
  const keyOf = (f: Finding): string => (f.kind === 'sensitive' ? f.item.id : `${f.kind} ${f.seen}`);
  const preset = (name: string | null) => (name ? t(`presets.${name as 'full'}`) : t('reaches.words'));
  const textOf = (f: Finding): string => {
    switch (f.kind) {
      case 'sensitive':
        return t('findings.sensitive', {
          title: f.item.title,
          topic: f.item.topic ? t(`topics.${f.item.topic}`) : '',
          people: f.people,
        });
      case 'everyone':
        return t('findings.everyone', { sight: t(`sightWords.${f.sight}`) });
      case 'unused':
        return t('findings.unused', {
          name: f.name,
          what: preset(f.preset),
          used: f.lastUsed ? 'once' : 'never',
          date: f.lastUsed ? dayMonth(toWall(style.zone, parseInstant(f.lastUsed) ?? 0)) : '',
        });
      case 'endless':
        return t('findings.endless', { name: f.name, what: preset(f.preset) });
      default:
        return f satisfies never;
    }
  };
  const mend = async (f: Finding) => {
    setBusy(keyOf(f));
    setRefused(null);
    try {
      if (f.kind === 'sensitive') {
        const answer = await call('changeItem', {
          params: { item: f.item.id },
          body: { version: f.version, scope: f.series ? 'all' : 'one', fields: { visibility: 'private' } },
        });
        await onMended(t('findings.sensitiveDone'), async () => {
          await call('undo', { body: { undo: answer.undo } });
        });
      } else if (f.kind === 'everyone') {
        await call('giveAccess', {
          params: { calendar },
          body: { audience: { kind: 'everyone' }, rights: { ...NOTHING, sight: 'busy' }, seen: f.seen },
        });
        await onMended(t('findings.everyoneDone'));
      } else {
        await call('takeAccess', { params: { calendar }, body: { audience: f.audience, seen: f.seen } });
        await onMended(t('findings.takenDone', { name: f.name }));
      }
    } catch (error) {
      setRefused(said(error, t('common.unreachable')).sentence);
    } finally {
      setBusy(null);
    }
  };
  return (
    <section className="card wrong-card" aria-label={t('findings.title')} style={{ marginBottom: 12 }}>
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <b className="wrong">{t('findings.head', { count: findings.length })}</b>
        <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? t('findings.hide') : t('findings.look')}
        </Button>
      </div>
      {refused && <Alert severity="error">{refused}</Alert>}
      {open && (
        <ul style={{ margin: 0, padding: 0, listStyle: 'none', display: 'grid', gap: 8 }}>
          {findings.map((f) => (
            <li key={keyOf(f)}>
              {textOf(f)}
              {f.kind === 'sensitive' && <span className="small soft"> {whenText(f.item, style)}</span>}{' '}
              <Button
                variant="outlined"
                sx={{ minHeight: 26, py: 0 }}
                loading={busy === keyOf(f)}
                aria-label={f.kind === 'sensitive' ? `${t('findings.sensitiveFix')}: ${f.item.title}` : undefined}
                onClick={() => void mend(f)}
              >
                {t(`findings.${f.kind}Fix`)}
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
