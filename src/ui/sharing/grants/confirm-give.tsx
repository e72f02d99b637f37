'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import pageCss from '../../common/page.module.css';
import grantEditorCss from './grant-editor.module.css';

/** Which calendar a confirmation is about, and what comes of private items there, as its texts ask for them. */
export const aboutOf = ({ calendar, owner }: SightlinesAnswer, { sight, private: letIn }: RightsWire) => ({
  owner: owner.name,
  calendar: calendar.name,
  further: calendar.main || calendar.name === '' ? 'no' : 'yes',
  rest: letIn ? 'all' : sight === 'nothing' || sight === 'busy' ? 'none' : 'taken',
});

/** The one confirmation there is: before something leaves the house or reaches many, with the names of who gets what. */
export function ConfirmGive(props: {
  head: string | null;
  text: string;
  busy: boolean;
  onYes: () => void;
  onNo: () => void;
}) {
  const t = useTranslations('lines');
  return (
    <div className={`${pageCss.card} ${grantEditorCss.acts} ${grantEditorCss.card}`} role="alert">
      {props.head && <h3>{props.head}</h3>}
      <p>{props.text}</p>
      <div className="row above-4">
        <Button variant="contained" autoFocus loading={props.busy} onClick={props.onYes}>
          {t('confirmDo')}
        </Button>
        <Button variant="outlined" onClick={props.onNo}>
          {t('confirmNot')}
        </Button>
      </div>
    </div>
  );
}
