'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import { useFrame } from '../common/frame-context.tsx';
import { useHydrated } from '../common/hydrated.ts';

/** A link's name while it is made, afterwards its secret address. */
export function LinkPart(props: {
  path: string | null;
  named: boolean;
  main: boolean;
  name: string;
  wrong: string | undefined;
  onName: (name: string) => void;
}) {
  const { path, named, main, name, wrong, onName } = props;
  const t = useTranslations('lines');
  const { toast } = useFrame();
  const hydrated = useHydrated();
  const address = path && hydrated ? `${window.location.origin}${path}` : '';
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      {!named && (
        <TextField
          label={t('linkName')}
          value={name}
          autoFocus
          error={!!wrong}
          helperText={wrong ?? t('linkNameHelp')}
          onChange={(e) => onName(e.target.value)}
        />
      )}
      <p className="small soft">{t('linkHelp')}</p>
      {main && <p className="small wrong">{t('linkWarn')}</p>}
      {named && !path && <p className="small soft">{t('linkHidden')}</p>}
      {path && (
        <>
          <TextField
            label={t('linkAddress')}
            value={address}
            slotProps={{
              htmlInput: { readOnly: true, onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select() },
            }}
          />
          <div className="row">
            <Button
              variant="outlined"
              onClick={async () => {
                await navigator.clipboard.writeText(address);
                toast({ text: t('linkCopied') });
              }}
            >
              {t('linkCopy')}
            </Button>
            <a href={path} target="_blank" rel="noreferrer">
              {t('linkOpen')}
            </a>
          </div>
        </>
      )}
    </div>
  );
}
