'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { GrantWire } from '@/contract/sharing/sharing.ts';
import grantEditorCss from './grant-editor.module.css';

/** The foot of the editor: giving what was chosen, with or without telling, leaving it as it is, and taking it away. */
export function GrantActs(props: {
  whom: 'everyone' | 'link' | 'one';
  who: string;
  grant: GrantWire | null;
  unsaved: boolean;
  ready: boolean;
  busy: boolean;
  onSave: (tell: boolean) => void;
  onLeave: () => void;
  onTake: () => void;
}) {
  const { whom, who, grant, unsaved, ready, busy, onSave, onLeave, onTake } = props;
  const tl = useTranslations('lines');
  const everyoneRow = whom === 'everyone';
  const link = whom === 'link';
  return (
    <div className={`row ${grantEditorCss.acts}`}>
      <Button
        variant="contained"
        disabled={!unsaved || !ready}
        loading={busy}
        onClick={() => onSave(!everyoneRow && !link)}
      >
        {everyoneRow
          ? tl('saveEveryone')
          : link
            ? tl(grant ? 'saveLinkAgain' : 'saveLink')
            : tl('saveTell', { name: who })}
      </Button>
      {!everyoneRow && !link && (
        <Button variant="outlined" disabled={!unsaved || !ready} loading={busy} onClick={() => onSave(false)}>
          {tl('saveQuietly', { name: who })}
        </Button>
      )}
      {unsaved && grant !== null && (
        <Button variant="outlined" onClick={onLeave}>
          {tl('leave')}
        </Button>
      )}
      {unsaved && <span className="small wrong">{tl('unsaved')}</span>}
      {grant !== null && !everyoneRow && (
        <Button variant="text" color="error" className="at-end clay" onClick={onTake}>
          {grant.state === 'ended' ? tl('clear') : link ? tl('withdraw') : tl('take')}
        </Button>
      )}
    </div>
  );
}
