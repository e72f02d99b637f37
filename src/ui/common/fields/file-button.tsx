'use client';
import Button from '@mui/material/Button';
import { useRef } from 'react';

/** A button that takes a file; the same one can be chosen again. */
export function FileButton(props: { label: string; accept: string; busy: boolean; onFile: (file: File) => void }) {
  const { label, accept, busy, onFile } = props;
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="text" loading={busy} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
