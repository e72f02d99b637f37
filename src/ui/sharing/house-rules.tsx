'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { CeilingsWire, HouseRulesWire } from '@/contract/sharing/rules.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import segCss from '../common/fields/seg.module.css';
import { useFrame } from '../common/frame-context.tsx';
import sectionsCss from '../common/sections.module.css';
import { Sections } from '../common/sections.tsx';
import { Domains } from '../people/domains.tsx';
import houseRulesCss from './house-rules.module.css';

const LINKS_BY = ['sharers', 'administrators', 'nobody'] as const;

/** The organisation's ceilings and starts. Everyone inside may read them; an administrator sets them, with effect at once. */
export function HouseRules({ after }: { after?: ReactNode }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.houseRules, queryFn: () => call('readHouseRules', {}) });
  const [chosen, setChosen] = useState<HouseRulesWire | null>(null);
  const { attempt, busy, refused } = useActing();
  const rules = chosen ?? query.data?.rules;
  const mayChange = query.data?.mayChange === true;
  const save = async () => {
    if (!chosen) return;
    await attempt(async () => {
      await call('changeHouseRules', { body: chosen });
      toast({ text: t('houseRules.saved') });
      await client.invalidateQueries();
      // What was chosen since stays.
      setChosen((now) => (now === chosen ? null : now));
    });
  };
  return (
    <Sections>
      <h1>{t('houseRules.title')}</h1>
      <p className="soft above-3 below-6">{t('houseRules.intro')}</p>
      <QueryState query={query} />
      {refused && <Alert severity="error">{refused}</Alert>}
      {query.data && !mayChange && <p>{t('houseRules.readOnly')}</p>}
      {rules && (
        <div className={houseRulesCss.rules}>
          <Ceilings
            head={t('houseRules.main')}
            id="main"
            rules={rules.main}
            mayChange={mayChange}
            onChange={(main) => setChosen({ ...rules, main })}
          />
          <div>
            <FormControlLabel
              className="choice below-4"
              label={t('houseRules.furtherOwn')}
              disabled={!mayChange}
              control={
                <Switch
                  size="small"
                  checked={rules.further !== null}
                  onChange={(e) => setChosen({ ...rules, further: e.target.checked ? { ...rules.main } : null })}
                />
              }
            />
            {rules.further && (
              <Ceilings
                head={t('houseRules.further')}
                id="further"
                rules={rules.further}
                mayChange={mayChange}
                onChange={(further) => setChosen({ ...rules, further })}
              />
            )}
            <section aria-labelledby="rules-new">
              <h2 id="rules-new">{t('houseRules.newHead')}</h2>
              <Choice
                id="startSight"
                label={t('houseRules.startHead')}
                help={t('houseRules.startHelp')}
                options={SIGHTS.map((s) => [s, t(`sights.${s}`)])}
                value={rules.startSight}
                disabled={!mayChange}
                onChange={(startSight) => setChosen({ ...rules, startSight })}
              />
              <Choice
                id="linksBy"
                label={t('houseRules.linksHead')}
                help={t('houseRules.linksHelp')}
                options={LINKS_BY.map((who) => [who, t(`houseRules.linksBy.${who}`)])}
                value={rules.linksBy}
                disabled={!mayChange}
                onChange={(linksBy) => setChosen({ ...rules, linksBy })}
              />
            </section>
            <section aria-labelledby="rules-meetings">
              <h2 id="rules-meetings">{t('houseRules.meetingsHead')}</h2>
              {(['warnOutside', 'meetingLinks'] as const).map((rule) => (
                <Choice
                  key={rule}
                  id={rule}
                  label={t(`houseRules.${rule}`)}
                  help={t(`houseRules.${rule}Help`)}
                  options={[
                    ['no', t('houseRules.meetingsNo')],
                    ['yes', t('houseRules.meetingsYes')],
                  ]}
                  value={rules[rule] ? 'yes' : 'no'}
                  disabled={!mayChange}
                  onChange={(v) => setChosen({ ...rules, [rule]: v === 'yes' })}
                />
              ))}
            </section>
          </div>
        </div>
      )}
      {mayChange && query.data && (
        <>
          <p className="small soft">{t('houseRules.cut', { count: query.data.cut })}</p>
          <div className={chosen ? sectionsCss.save : 'row'}>
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
      {query.data && <Domains mayChange={mayChange} />}
      {after}
    </Sections>
  );
}

function Ceilings(props: {
  head: string;
  id: string;
  rules: CeilingsWire;
  mayChange: boolean;
  onChange: (rules: CeilingsWire) => void;
}) {
  const { head, id, rules, mayChange, onChange } = props;
  const t = useTranslations();
  const sights = SIGHTS.map((s): [(typeof SIGHTS)[number], string] => [s, t(`sights.${s}`)]);
  return (
    <section aria-labelledby={`rules-${id}`}>
      <h2 id={`rules-${id}`}>{head}</h2>
      {(['everyoneSight', 'outsideSight', 'linkSight'] as const).map((rule) => (
        <Choice
          key={rule}
          id={`${id}-${rule}`}
          label={t(`houseRuleNames.${rule}`)}
          options={sights}
          value={rules[rule]}
          disabled={!mayChange}
          onChange={(sight) => onChange({ ...rules, [rule]: sight })}
        />
      ))}
      <Choice
        id={`${id}-outsideReach`}
        label={t('houseRuleNames.outsideReach')}
        options={SCOPES.map((s) => [s, t(`scopes.${s}`)])}
        value={rules.outsideReach}
        disabled={!mayChange}
        onChange={(outsideReach) => onChange({ ...rules, outsideReach })}
      />
      <Choice
        id={`${id}-outsideExtras`}
        label={t('houseRuleNames.outsideExtras')}
        options={[
          ['no', t('houseRules.deny')],
          ['yes', t('houseRules.allow')],
        ]}
        value={rules.outsideExtras ? 'yes' : 'no'}
        disabled={!mayChange}
        onChange={(v) => onChange({ ...rules, outsideExtras: v === 'yes' })}
      />
    </section>
  );
}

function Choice<T extends string>(props: {
  id: string;
  label: string;
  help?: string;
  options: readonly [T, string][];
  value: T;
  disabled: boolean;
  onChange: (value: T) => void;
}) {
  const { id, label, help, options, value, disabled, onChange } = props;
  return (
    <section className="below-6">
      <h3 id={`rule-${id}`} className="below-2">
        {label}
      </h3>
      {help && <p className="small soft">{help}</p>}
      <ToggleButtonGroup
        exclusive
        className={`${segCss.seg} ${houseRulesCss.seg} ${segCss.sight}`}
        aria-labelledby={`rule-${id}`}
        value={value}
        disabled={disabled}
        onChange={(_, v: T | null) => v && onChange(v)}
      >
        {options.map(([v, word]) => (
          <ToggleButton key={v} value={v}>
            {word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </section>
  );
}
