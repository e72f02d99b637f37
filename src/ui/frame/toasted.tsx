'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { useTranslations } from 'use-intl';
import type { Toast } from '../common/frame-context.tsx';
import frameCss from './frame.module.css';

/** A short message at the foot of the window, with what takes the act back; gone by itself. */
export function Toasted({ toast, onGone }: { toast: Toast; onGone: () => void }) {
  const t = useTranslations();
  return (
    <Snackbar
      open
      autoHideDuration={toast.undo ? 12_000 : 5_000}
      onClose={(_, reason) => reason !== 'clickaway' && onGone()}
      // Beside the spine: the buttons that save stand further right, and stay free.
      anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      className={frameCss.toasts}
    >
      <Alert
        severity="success"
        variant="outlined"
        icon={false}
        className={`middle ${frameCss.toast}`}
        action={
          toast.undo ? (
            <Button
              size="small"
              variant="text"
              onClick={() => {
                toast.undo?.();
                onGone();
              }}
            >
              {toast.undoWord ?? t('board.undo')}
            </Button>
          ) : undefined
        }
      >
        {toast.text}
      </Alert>
    </Snackbar>
  );
}
