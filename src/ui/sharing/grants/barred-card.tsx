'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ChoiceWire } from '@/contract/sharing/sharing.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import pageCss from '../../common/page.module.css';
import { useRuleValue } from '../rule-value.ts';

const EXTRA_NAMES: Readonly<Record<string, true>> = {
  suggest: true,
  private: true,
  speaks: true,
  copies: true,
  shares: true,
  absence: true,
};

/** Why something can't be chosen: the house rules that stand against it, and one step to ask for exactly that change. */
export function BarredCard(props: { choice: ChoiceWire; further: boolean; onClose: () => void }) {
  const { choice, further, onClose } = props;
  const t = useTranslations();
  const what =
    choice.group === 'preset'
      ? t(`presets.${choice.value as 'full'}`)
      : choice.group === 'sight'
        ? t(`sights.${choice.value as 'full'}`)
        : choice.group === 'reach'
          ? t(`reaches.${choice.value as 'add'}`)
          : choice.group in EXTRA_NAMES
            ? t(`extras.${choice.group as 'private'}`)
            : t(`lines.${choice.group === 'add' ? 'addRight' : choice.group === 'change' ? 'change' : 'removeRight'}`);
  const { frame, toast } = useFrame();
  const valueText = useRuleValue();
  const [note, setNote] = useState('');
  const { attempt, busy, refused } = useActing();
  const requestRule = async () => {
    await attempt(async () => {
      await call('wishForRule', { body: { changes: choice.wants, further, note } });
      toast({ text: t('lines.askedAdministrator') });
      onClose();
    });
  };
  return (
    <div className={`${pageCss.card} ${pageCss['wrong-card']} stack`} role="alert">
      <div className="row spread">
        <b>{choice.wants.length > 0 ? t('lines.barredHead') : what}</b>
        <Button variant="text" className="low" onClick={onClose}>
          {t('panel.close')}
        </Button>
      </div>
      {refused && <Alert severity="error">{refused}</Alert>}
      {choice.wants.length === 0 && <p>{t(`lines.barred.${choice.barred as 'giverHoldsLess'}`)}</p>}
      {choice.wants.map(({ rule, wanted }) => (
        <p key={rule}>
          {t('lines.barredNeeds', { choice: what, rule: t(`houseRuleNames.${rule}`), wanted: valueText(rule, wanted) })}
        </p>
      ))}
      {choice.wants.length > 0 &&
        (frame.me.administrator ? (
          <p className="small">
            {t('lines.asAdministratorChange')}{' '}
            <Link href={`/for/${frame.me.handle}/house-rules`}>{t('houseRules.title')}</Link>
          </p>
        ) : (
          <>
            <TextField label={t('lines.askNote')} value={note} onChange={(e) => setNote(e.target.value)} />
            <div>
              <Button variant="outlined" loading={busy} onClick={requestRule}>
                {t('lines.askAdministrator')}
              </Button>
            </div>
          </>
        ))}
    </div>
  );
}
