'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';

/** The end of a form that gives: said to whom it is given, or quietly, or not at all. */
export function GiveRow(props: {
  says: (tell: boolean) => string;
  off: boolean;
  busy: boolean;
  onGive: (tell: boolean) => void;
  onClose: () => void;
}) {
  const { says, off, busy, onGive, onClose } = props;
  const t = useTranslations('form');
  return (
    <div className="row">
      {[true, false].map((tell) => (
        <Button
          key={String(tell)}
          variant={tell ? 'contained' : 'outlined'}
          disabled={off}
          loading={busy}
          onClick={() => onGive(tell)}
        >
          {says(tell)}
        </Button>
      ))}
      <Button variant="outlined" onClick={onClose}>
        {t('cancel')}
      </Button>
    </div>
  );
}
