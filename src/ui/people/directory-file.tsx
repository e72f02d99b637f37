'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DirectoryAnswer } from '@/contract/people/people.ts';
import { useActing } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import directoryFileCss from './directory-file.module.css';

/** The directory out as a file, and in: read first and said line by line, then brought in as one act. */
export function DirectoryFile() {
  const t = useTranslations('people');
  const { toast } = useFrame();
  const client = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [read, setRead] = useState<DirectoryAnswer | null>(null);
  const { attempt, busy, refused, setRefused } = useActing();
  const send = async (apply: boolean) => {
    setRefused(null);
    await attempt(
      async () => {
        const answer = await call('bringInDirectory', { body: { text, apply } });
        if (!apply) setRead(answer);
        else {
          setRead(null);
          setText('');
          toast({ text: t('fileDone', { added: answer.added.length, changed: answer.changed.length }) });
          await client.invalidateQueries();
        }
      },
      (s) => {
        setRefused(s.fields.text ?? s.sentence);
      },
    );
  };
  const doable = read ? read.added.length + read.changed.length : 0;
  return (
    <div className="gap-6 stack">
      <a href="/api/directory" download>
        {t('fileOut')}
      </a>
      <h3>{t('fileIn')}</h3>
      <p className="small soft">{t('fileHelp')}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        label={t('filePaste')}
        multiline
        minRows={5}
        maxRows={12}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setRead(null);
        }}
      />
      <div className="row">
        <Button variant="outlined" onClick={() => chooser.current?.click()}>
          {t('fileChoose')}
        </Button>
        <input
          ref={chooser}
          type="file"
          hidden
          aria-label={t('fileChoose')}
          accept=".csv,text/csv,text/plain"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (!file) return;
            setText(await file.text());
            setRead(null);
          }}
        />
        <Button
          variant="outlined"
          disabled={text.trim() === ''}
          loading={busy && !read}
          onClick={() => void send(false)}
        >
          {t('fileRead')}
        </Button>
      </div>
      {read && (
        <div className={`${pageCss.card} stack`} role="status">
          <p>
            {t('fileAdded', { count: read.added.length })}, {t('fileChanged', { count: read.changed.length })},{' '}
            {t('fileSame', { count: read.same })}.
          </p>
          {read.newGroups.length > 0 && <p>{t('fileGroups', { list: read.newGroups.join(', ') })}</p>}
          <ul className={`${directoryFileCss['plain-list']} small`}>
            {read.added.map((p) => (
              <li key={p.address}>
                + {p.name}, {p.address} {p.groups.length > 0 && <span className="soft">{p.groups.join(', ')}</span>}
              </li>
            ))}
            {read.changed.map((p) => (
              <li key={p.address}>
                {p.name}: <span className="soft">{p.what.map((w) => t(`fileWhat.${w as 'name'}`)).join(', ')}</span>
              </li>
            ))}
            {read.wrong.map((w) => (
              <li key={`${w.line} ${w.text}`}>
                {t('fileWrong', { line: w.line, text: w.text })}{' '}
                <span className="wrong">{t(`fileReasons.${w.reason as 'name'}`)}</span>
              </li>
            ))}
          </ul>
          <div>
            <Button variant="contained" disabled={doable === 0} loading={busy} onClick={() => void send(true)}>
              {read.wrong.length > 0
                ? t('fileDoLeave', { count: doable, wrong: read.wrong.length })
                : t('fileDo', { count: doable })}
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}
