'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call, sendPicture } from '@/contract/call.ts';
import type { ContactWire } from '@/contract/contacts.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { FileButton } from '../common/fields/file-button.tsx';
import { Token } from '../common/token.tsx';
import pictureCss from './contact-picture.module.css';

/** The longer side of a picture that is chosen here, in pixels: it stands small. */
const MOST_SIDE = 320;

/** Somebody's picture, or their initials where their contact has none. */
export function ContactFace({ contact }: { contact: ContactWire }) {
  const t = useTranslations('contacts');
  const [broken, setBroken] = useState(-1);
  const version = contact.version ?? 0;
  if (!contact.picture || broken === version) return <Token name={contact.name} colour={5} />;
  return (
    // biome-ignore lint/performance/noImgElement: it is behind access, and small as it is
    <img
      className={pictureCss.face}
      src={`/api/contacts/${encodeURIComponent(contact.id)}/picture?v=${version}`}
      alt={t('pictureOf', { name: contact.name })}
      width={56}
      height={56}
      onError={() => setBroken(version)}
    />
  );
}

/** A picture from a file, made small; `null` where it is no picture. */
async function small(file: Blob): Promise<Blob | null> {
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture) return null;
  const scale = Math.min(1, MOST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.88));
}

/** Gives a contact a picture from a file, or takes it away; for whoever may change it. */
export function PictureActs(props: { contact: ContactWire; onSaved: (text: string, undo: string) => Promise<void> }) {
  const { contact, onSaved } = props;
  const t = useTranslations('contacts');
  const tr = useTranslations('fields');
  const client = useQueryClient();
  const { attempt, busy, refused, fields, setFields } = useActing(['picture']);
  const version = contact.version ?? 0;
  const choose = (file: File) =>
    attempt(async () => {
      const picture = await small(file);
      if (!picture) return setFields({ picture: tr('noPicture') });
      const { contact: after, undo } = await sendPicture(contact.id, version, picture);
      if (after) client.setQueryData(KEYS.contact(contact.id), after);
      await onSaved(t('pictureSaved', { name: contact.name }), undo);
    });
  const takeAway = () =>
    attempt(async () => {
      const { contact: after, undo } = await call('removeContactPicture', {
        params: { contact: contact.id },
        query: { version },
      });
      if (after) client.setQueryData(KEYS.contact(contact.id), after);
      await onSaved(t('pictureGone'), undo);
    });
  const wrong = fields.picture ?? refused;
  return (
    <>
      <FileButton
        label={t('picture')}
        accept="image/jpeg,image/png,image/gif,image/webp"
        busy={busy}
        onFile={(file) => void choose(file)}
      />
      {contact.picture && (
        <Button variant="text" loading={busy} onClick={() => void takeAway()}>
          {t('pictureAway')}
        </Button>
      )}
      {wrong && (
        <p className="small wrong" role="alert">
          {wrong}
        </p>
      )}
    </>
  );
}
