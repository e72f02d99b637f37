'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { HouseRulesWire } from '@/contract/access.ts';
import { call } from '@/contract/call.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { Asked } from '../common/asked.tsx';
import { said } from '../common/refusal.ts';
import { useFrame } from '../frame/frame-context.tsx';

const SIGHT_RULES = ['everyoneSight', 'outsideSight', 'linkSight'] as const;

/** The organisation's ceilings. Everyone may read them; an administrator sets them, with effect at once. */
export function HouseRules() {
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: ['house-rules'], queryFn: () => call('readHouseRules', {}) });
  const [chosen, setChosen] = useState<HouseRulesWire | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const rules = chosen ?? query.data?.rules;
  const mayChange = query.data?.mayChange === true;
  const save = async () => {
    if (!chosen) return;
    setBusy(true);
    setRefused(null);
    try {
      await call('changeHouseRules', { body: chosen });
      toast({ text: t('houseRules.saved') });
      await client.invalidateQueries();
      setChosen(null);
    } catch (error) {
      setRefused(said(error, t('common.unreachable')).sentence);
    } finally {
      setBusy(false);
    }
  };
  const group = <T extends string>(
    rule: keyof HouseRulesWire,
    options: readonly [T, string][],
    value: T,
    set: (v: T) => HouseRulesWire,
  ) => (
    <section key={rule} style={{ marginBottom: 14 }}>
      <h3 id={`rule-${rule}`} style={{ marginBottom: 4 }}>
        {t(`houseRuleNames.${rule}`)}
      </h3>
      <ToggleButtonGroup
        exclusive
        className="seg sight"
        aria-labelledby={`rule-${rule}`}
        value={value}
        disabled={!mayChange}
        onChange={(_, v: T | null) => v && setChosen(set(v))}
      >
        {options.map(([v, word]) => (
          <ToggleButton key={v} value={v}>
            {word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </section>
  );
  return (
    <div className="page" style={{ maxWidth: 720 }}>
      <h1>{t('houseRules.title')}</h1>
      <p className="soft" style={{ margin: '6px 0 16px' }}>
        {t('houseRules.intro')}
      </p>
      <Asked query={query} />
      {refused && <Alert severity="error">{refused}</Alert>}
      {query.data && !mayChange && <p>{t('houseRules.readOnly')}</p>}
      {rules && (
        <>
          {SIGHT_RULES.map((rule) =>
            group(
              rule,
              SIGHTS.map((s) => [s, t(`sights.${s}`)]),
              rules[rule],
              (v) => ({ ...rules, [rule]: v }),
            ),
          )}
          {group(
            'outsideReach',
            SCOPES.map((s) => [s, t(`scopes.${s}`)]),
            rules.outsideReach,
            (v) => ({ ...rules, outsideReach: v }),
          )}
          {group(
            'outsideExtras',
            [
              ['no', t('houseRules.deny')],
              ['yes', t('houseRules.allow')],
            ],
            rules.outsideExtras ? 'yes' : 'no',
            (v) => ({ ...rules, outsideExtras: v === 'yes' }),
          )}
        </>
      )}
      {mayChange && query.data && (
        <>
          <p className="small soft">{t('houseRules.cut', { count: query.data.cut })}</p>
          <div className="row" style={{ marginTop: 10 }}>
            <Button variant="contained" disabled={chosen === null} loading={busy} onClick={save}>
              {t('houseRules.save')}
            </Button>
            {chosen && (
              <Button variant="outlined" onClick={() => setChosen(null)}>
                {t('houseRules.leave')}
              </Button>
            )}
          </div>
        </>
      )}
    </div>
  );
}
