'use client';
import TextField from '@mui/material/TextField';
import { lazy, Suspense } from 'react';
import type { RichFieldProps } from './rich-editor.tsx';

const Editor = lazy(() => import('./rich-editor.tsx').then((m) => ({ default: m.RichEditor })));

/** A text typed with its bold words, lists and links, kept as Markdown. Until the editor is there, and where it can't come, it is typed as it is kept. */
export function RichField(props: RichFieldProps) {
  const { label, value, error, disabled, onChange } = props;
  const plain = (
    <TextField
      label={label}
      value={value}
      error={!!error}
      helperText={error}
      disabled={disabled ?? false}
      multiline
      minRows={2}
      maxRows={8}
      onChange={(e) => onChange(e.target.value)}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
  if (disabled) return plain;
  return (
    <Suspense fallback={plain}>
      <Editor {...props} />
    </Suspense>
  );
}
