'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Controller, type UseFormReturn } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { IMPORTANCES, KINDS, STATUSES } from '@/core/calendar/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { ZoneField } from '../../common/fields/zone-field.tsx';
import { DaysField } from './days-field.tsx';
import itemFormCss from './item-form.module.css';
import type { itemInputs } from './item-inputs.tsx';
import type { Values, whenOf } from './item-values.ts';
import { ruleFor } from './repeat-kinds.ts';
import { NextDates, RepeatSaid } from './repeat-said.tsx';

const REPEATS = ['none', 'DAILY', 'WEEKDAYS', 'WEEKLY', 'FORTNIGHT', 'MONTHLY', 'YEARLY'] as const;

/** The fields of the form that most items do without. */
export function ItemMore(props: {
  form: UseFormReturn<Values>;
  inputs: Pick<ReturnType<typeof itemInputs>, 'helper' | 'input' | 'choice' | 'richInput' | 'dateInput'>;
  forward: boolean;
  /** Whether its repeat is chosen here. */
  repeats: boolean;
  /** A repeat the form has no word for, as the format writes it. */
  savedRule: string;
  /** What is somebody else's to say can be read alone. */
  own: { disabled?: boolean };
  briefed: boolean;
  owner: string;
  /** The series whose picked days it begins with, where it is one. */
  picked: string | null;
  /** When it is, where that can be read. */
  when: ReturnType<typeof whenOf> | null;
}) {
  const { form, inputs, forward, repeats, savedRule, own, briefed, owner, when, picked } = props;
  const { helper, input, choice, richInput, dateInput } = inputs;
  const t = useTranslations();
  const [kind, repeat, allDay] = form.watch(['kind', 'repeat', 'allDay']);
  const endZone = form.watch('endZone');
  const [repeatUntil, rule, dates] = form.watch(['repeatUntil', 'rule', 'dates']);
  const { data: apart } = useQuery({
    queryKey: KEYS.pickedDays(picked),
    queryFn: () => call('listApart', { params: { item: picked ?? '' } }),
    enabled: picked !== null,
    gcTime: 0,
    retry: false,
  });
  useEffect(() => {
    if (apart && !form.getFieldState('dates').isDirty) form.resetField('dates', { defaultValue: [...apart.days] });
  }, [apart, form]);
  return (
    <>
      <div className={itemFormCss.pair}>
        {choice(
          'kind',
          t('form.kind'),
          KINDS.map((k) => [k, t(`kinds.${k}`)]),
        )}
        {kind === 'whereabouts' ? (
          <p className="small soft">{t('form.whereaboutsFree')}</p>
        ) : (
          choice(
            'shows',
            t('form.shows'),
            STATUSES.map((s) => [s, t(`statuses.${s}`)]),
          )
        )}
      </div>
      {repeats && (
        <div className={itemFormCss.pair}>
          {choice('repeat', t('form.repeats'), [
            ...REPEATS.map((k): [string, string] => [k, t(`form.repeat.${k}`)]),
            ['said', t('form.repeat.said')],
            ['picked', t('form.repeat.picked')],
            ...(repeat === 'kept' ? [['kept', t('form.repeat.kept', { rule: savedRule })] as [string, string]] : []),
          ])}
          {repeat !== 'none' &&
            repeat !== 'kept' &&
            repeat !== 'said' &&
            repeat !== 'picked' &&
            dateInput('repeatUntil', t('form.repeatUntil'))}
        </div>
      )}
      {repeats && repeat === 'said' && (
        <RepeatSaid
          rule={rule}
          error={helper('repeat')}
          onChange={(said) => form.setValue('rule', said, { shouldDirty: true })}
        />
      )}
      {repeats && repeat === 'picked' && (
        <DaysField
          days={dates}
          error={helper('dates')}
          onChange={(days) => form.setValue('dates', days, { shouldDirty: true })}
        />
      )}
      {repeats && repeat !== 'none' && repeat !== 'kept' && repeat !== 'picked' && (
        <NextDates rule={ruleFor(repeat, repeatUntil, rule)} when={when} />
      )}
      {!allDay && (
        <Controller
          name="zone"
          control={form.control}
          render={({ field }) => (
            <ZoneField label={t('form.zone')} value={field.value} wrong={helper('zone')} onChange={field.onChange} />
          )}
        />
      )}
      {!allDay && !forward && endZone === '' && (
        <Button
          variant="text"
          className="own-width"
          onClick={() => form.setValue('endZone', form.getValues('zone'), { shouldDirty: true })}
        >
          {t('form.endZoneOther')}
        </Button>
      )}
      {!allDay && endZone !== '' && (
        <div>
          <Controller
            name="endZone"
            control={form.control}
            render={({ field }) => (
              <ZoneField
                label={t('form.endZone')}
                value={field.value}
                wrong={helper('endZone')}
                onChange={field.onChange}
              />
            )}
          />
          <Button variant="text" onClick={() => form.setValue('endZone', '', { shouldDirty: true })}>
            {t('form.endZoneSame')}
          </Button>
        </div>
      )}
      {input('link', t('form.link'), own)}
      {richInput('notes', t('form.notes'), own)}
      {!forward && input('categories', t('form.categories'), { placeholder: t('form.categoriesHelp') })}
      {!forward &&
        choice(
          'importance',
          t('form.importance'),
          IMPORTANCES.map((i) => [i, t(`importances.${i}`)]),
        )}
      {briefed &&
        input('briefing', t('form.briefing'), {
          multiline: true,
          minRows: 2,
          helperText: t('form.briefingHelp', { name: owner }),
        })}
    </>
  );
}
