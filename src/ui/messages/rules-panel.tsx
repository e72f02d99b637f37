import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { FolderWire, MailRuleWire } from '@/contract/messages.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import messagesCss from './messages.module.css';
import { useAllFolders } from './use-folders.ts';

/** Where one's own mail is filed as it arrives: the first rule that fits does it, and all it says must fit. */
export function RulesPanel({ who, onClose }: { who: string; onClose: () => void }) {
  const t = useTranslations('folders');
  const common = useTranslations('panel');
  const rules = useQuery({
    queryKey: KEYS.mailRules(who),
    queryFn: () => call('listMailRules', { params: { person: who } }),
    retry: false,
  });
  const folders = useAllFolders(who, true);
  return (
    <aside className={messagesCss.panel} aria-label={t('rules')}>
      <div className={messagesCss.for}>
        <span>{t('yours')}</span>
        <Button variant="text" className="low" onClick={onClose}>
          {common('close')}
        </Button>
      </div>
      <h1>{t('rules')}</h1>
      <p className="soft">{t('rulesHelp')}</p>
      <QueryState query={rules} />
      {rules.data && folders.length > 0 && (
        <Rules who={who} rules={rules.data.rules} folders={folders.filter(isGoal)} />
      )}
    </aside>
  );
}

const isGoal = ({ own, role }: FolderWire): boolean => own && role !== 'sent' && role !== 'drafts';

function Rules({
  who,
  rules,
  folders,
}: {
  who: string;
  rules: readonly MailRuleWire[];
  folders: readonly FolderWire[];
}) {
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const { toast } = useFrame();
  const [list, setList] = useState<readonly MailRuleWire[]>(rules);
  const { attempt, busy, refused, fields } = useActing(['sender', 'folder', 'rules']);
  const first = folders.find((one) => one.role === 'filed') ?? folders[0];
  const change = (at: number, more: Partial<MailRuleWire>) =>
    setList(list.map((rule, i) => (i === at ? { ...rule, ...more } : rule)));
  const move = (at: number, by: number) => {
    const next = [...list];
    const [rule] = next.splice(at, 1);
    if (rule) next.splice(at + by, 0, rule);
    setList(next);
  };
  const save = () =>
    attempt(async () => {
      const saved = await call('saveMailRules', { params: { person: who }, body: { rules: [...list] } });
      setList(saved.rules);
      toast({ text: t('rulesSaved') });
    });
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      {list.length === 0 && <p className="soft">{t('noRules')}</p>}
      <ol className="list">
        {list.map((rule, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a rule is what stands at its place
          <li key={i} className={messagesCss.rule} aria-label={t('ruleNumber', { number: i + 1 })}>
            <TextField
              label={t('ruleSender')}
              value={rule.sender ?? ''}
              onChange={(e) => change(i, { sender: e.target.value || null })}
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
            <TextField
              label={t('ruleWords')}
              value={rule.words ?? ''}
              onChange={(e) => change(i, { words: e.target.value || null })}
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={rule.meeting}
                  onChange={(e) => change(i, { meeting: e.target.checked })}
                />
              }
              label={t('ruleMeeting')}
            />
            <div className={messagesCss.acts}>
              <TextField
                select
                label={t('ruleInto')}
                value={rule.folder}
                fullWidth={false}
                className="field-3"
                onChange={(e) => change(i, { folder: e.target.value })}
              >
                {folders.map((one) => (
                  <MenuItem key={one.key} value={one.key}>
                    {nameOf('folder', one.name)}
                  </MenuItem>
                ))}
              </TextField>
              {i > 0 && (
                <Button variant="text" onClick={() => move(i, -1)}>
                  {t('earlier')}
                </Button>
              )}
              <Button variant="text" onClick={() => setList(list.filter((_, at) => at !== i))}>
                {t('removeRule')}
              </Button>
            </div>
          </li>
        ))}
      </ol>
      {(refused || fields.sender || fields.folder || fields.rules) && (
        <p className="wrong" role="alert">
          {refused ?? fields.sender ?? fields.folder ?? fields.rules}
        </p>
      )}
      <div className="row above-5">
        {first && (
          <Button
            variant="outlined"
            onClick={() => setList([...list, { sender: null, words: null, meeting: false, folder: first.key }])}
          >
            {t('addRule')}
          </Button>
        )}
        <Button type="submit" variant="contained" loading={busy}>
          {t('saveRules')}
        </Button>
      </div>
    </form>
  );
}
