'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import pageCss from '@/ui/common/page.module.css';

export default function Broken({ reset }: { reset: () => void }) {
  const t = useTranslations('broken');
  return (
    <div className={pageCss.state} role="alert">
      <h1>{t('title')}</h1>
      <p className="soft">{t('text')}</p>
      <Button variant="outlined" onClick={reset}>
        {t('again')}
      </Button>
    </div>
  );
}
