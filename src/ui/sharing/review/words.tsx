'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { WordsBody } from '@/contract/sharing/review.ts';
import { TOPICS } from '@/core/review/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';

type Word = WordsBody['words'][number];
const CHOICES = ['own', ...TOPICS.filter((topic) => topic !== 'own'), 'never'] as const;

/** One's own words by which an item looks sensitive, or never does. */
export function Words({ calendar, words }: { calendar: string; words: readonly Word[] }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const [word, setWord] = useState('');
  const [topic, setTopic] = useState<Word['topic']>('own');
  const { attempt, refused, fields } = useActing();
  const wrong = Object.values(fields)[0];
  const topicText = (of: Word['topic']) => (of === 'never' ? t('findings.never') : t(`topics.${of}`));
  const save = (next: readonly Word[]): Promise<boolean> =>
    attempt(async () => {
      await call('changeWords', { body: { words: [...next] } });
      toast({ text: t('findings.wordsSaved') });
      await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
    });
  return (
    <section aria-label={t('findings.words')} className="above-6 stack">
      <h3>{t('findings.words')}</h3>
      <p className="small soft">{t('findings.wordsHelp')}</p>
      {refused && !wrong && <Alert severity="error">{refused}</Alert>}
      <div className="row">
        {words.length === 0 && <span className="small soft">{t('findings.wordsNone')}</span>}
        {words.map((w) => (
          <span key={w.word} className={pageCss.tag}>
            {w.word} <span className="soft">{topicText(w.topic)}</span>
            <button
              type="button"
              className="plain"
              aria-label={t('findings.wordRemove', { word: w.word })}
              onClick={() => void save(words.filter((other) => other !== w))}
            >
              ×
            </button>
          </span>
        ))}
      </div>
      <form
        className="stack"
        onSubmit={async (event) => {
          event.preventDefault();
          if (await save([...words, { word, topic }])) setWord('');
        }}
      >
        <TextField
          label={t('findings.word')}
          value={word}
          error={!!wrong}
          helperText={wrong}
          onChange={(e) => setWord(e.target.value)}
        />
        <TextField
          select
          label={t('findings.topic')}
          value={topic}
          onChange={(e) => setTopic(e.target.value as Word['topic'])}
        >
          {CHOICES.map((choice) => (
            <MenuItem key={choice} value={choice}>
              {topicText(choice)}
            </MenuItem>
          ))}
        </TextField>
        <div>
          <Button type="submit" variant="outlined" disabled={word.trim() === ''}>
            {t('findings.wordAdd')}
          </Button>
        </div>
      </form>
    </section>
  );
}
