'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { DateField } from '../../common/fields/date-field.tsx';

/** From when and until when a grant counts, and the quick ways to both: cover for a week, a week longer. */
export function GrantDates(props: {
  from: string;
  until: string;
  fields: Readonly<Record<string, string>>;
  owner: string;
  onDates: (span: { from: string; until: string }) => void;
  onCover: (() => void) | null;
  onLonger: (() => void) | null;
}) {
  const { from, until, fields, owner, onDates, onCover, onLonger } = props;
  const tl = useTranslations('lines');
  const date = (name: 'from' | 'until', label: string) => (
    <DateField
      label={label}
      value={name === 'from' ? from : until}
      error={fields[name]}
      width={190}
      onChange={(value) => onDates({ from, until, [name]: value })}
    />
  );
  return (
    <>
      <h3>{tl('when')}</h3>
      <div className="row top">
        {date('from', tl('from'))}
        {date('until', tl('until'))}
        {onCover && (
          <Button variant="text" onClick={onCover} title={tl('coverHelp', { name: owner })}>
            {tl('cover')}
          </Button>
        )}
        {onLonger && (
          <Button variant="text" onClick={onLonger}>
            {tl('extend')}
          </Button>
        )}
      </div>
    </>
  );
}
