'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ThreadWire } from '@/contract/messages.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { isSpokenFor } from '../common/keys.ts';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';
import { useAddress } from '../common/use-address.ts';
import { FolderHead } from './folder-head.tsx';
import { FolderTabs } from './folder-tabs.tsx';
import { FolderThreads } from './folder-threads.tsx';
import messagesCss from './messages.module.css';
import { NeedingThreads } from './needing-threads.tsx';
import { NewFolder } from './new-folder.tsx';
import { RulesPanel } from './rules-panel.tsx';
import { NamedThread, ThreadPanel } from './thread-panel.tsx';
import { useTold } from './told.tsx';
import { useAllFolders, useFolders } from './use-folders.ts';
import { useThreads } from './use-threads.ts';
import { WriteMail } from './write-mail.tsx';

/** What is open beside the list. */
type Panel =
  | { readonly what: 'thread'; readonly thread: ThreadWire; readonly another: boolean }
  | { readonly what: 'writing' }
  | { readonly what: 'rules' }
  | { readonly what: 'message'; readonly key: string }
  | null;

/**
 * The messages of whom this window works for: what needs an answer, or one of the folders one sees, as a list with what is chosen beside it. What one was told
 * of access stands with what needs an answer; looking at it is reading it.
 */
export function Messages({ who }: { who: string }) {
  const t = useTranslations();
  const { frame, principal } = useFrame();
  const { search, go } = useAddress();
  const wanted = search.get('folder');
  const removed = search.get('removed') !== null;
  const { lists, others, pending } = useFolders(who);
  const [panel, setPanel] = useState<Panel>(null);
  const [naming, setNaming] = useState(false);
  const onTop = [...lists, ...others];
  const mine = who === frame.me.handle;
  const acts = mine || principal !== null;
  const all = useAllFolders(who, wanted !== null && (panel !== null || !onTop.some(({ key }) => key === wanted)));
  const known = [...onTop, ...all];
  // Whoever was given folders alone begins with the first of them.
  const first = acts || pending ? null : (lists[0] ?? null);
  const folder = wanted === null ? first : (known.find(({ key }) => key === wanted) ?? null);
  const threads = useThreads(who, frame.me.inside);
  const inFolder = useThreads(folder?.own === false ? folder.owner.handle : who, folder !== null, {
    folder: folder?.key ?? '',
    removed,
  });
  const told = useTold(who);
  const from = folder ? inFolder : threads;
  const chosen = panel?.what === 'thread' ? panel.thread : null;
  // What was opened goes on as the list has it now.
  const shown =
    chosen &&
    (from.threads.find(({ key }) => key === chosen.key) ??
      from.threads.find(({ messages }) => messages.some(({ key }) => key === chosen.messages.at(-1)?.key)) ??
      chosen);
  const answer = from.first ?? threads.first;
  const read = useRead();
  const open = (thread: ThreadWire, another: boolean) => {
    if (answer && !removed)
      read(
        answer.owner.handle,
        thread.messages.filter((m) => m.unread).map((m) => m.key),
      );
    setPanel({ what: 'thread', thread, another });
  };
  // A message that the address names is opened, also where the list doesn't reach back to it.
  const named = search.get('message');
  const here = `${who} ${folder?.key ?? ''} ${removed} ${named ?? ''}`;
  const [at, setAt] = useState('');
  if (at !== here) {
    setAt(here);
    setPanel(named === null ? null : { what: 'message', key: named });
    setNaming(false);
  }
  const speaks = threads.first?.maySpeak === true;
  const write = useCallback(() => setPanel({ what: 'writing' }), []);
  useEffect(() => {
    if (!speaks) return;
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event) || event.key.toLowerCase() !== 'w' || event.shiftKey) return;
      event.preventDefault();
      write();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [speaks, write]);
  if (!frame.me.inside)
    return (
      <div className={`${pageCss.page} page-wide`}>
        <h1 className="below-2">{t('messages.title')}</h1>
        {told.between}
        {told.after}
        {told.nothing && <p className="soft">{t('messages.none')}</p>}
      </div>
    );
  const whose = principal && !principal.own ? principal : null;
  const needing = threads.first
    ? threads.threads.filter((thread) => thread.needs !== null).length + told.waiting
    : null;
  const title = whose ? t('messages.titleOf', { name: firstName(whose.name) }) : t('messages.title');
  return (
    <div className={messagesCss.page} data-open={panel === null ? undefined : ''}>
      <header className={messagesCss.head}>
        <h1 className="visually-hidden">{title}</h1>
        <FolderTabs
          who={who}
          lists={lists}
          others={others}
          current={folder}
          needing={needing}
          first={acts}
          onNew={() => setNaming(true)}
          onRules={() => setPanel({ what: 'rules' })}
        />
        {speaks && threads.first && (
          <span className={messagesCss.push}>
            <Button variant="outlined" aria-keyshortcuts="W" onClick={write}>
              {t('threads.write', {
                name: firstName(threads.first.owner.name),
                own: threads.first.own ? 'yes' : 'no',
              })}
              <kbd>W</kbd>
            </Button>
          </span>
        )}
      </header>
      <div className={messagesCss.column}>
        {naming && <NewFolder who={who} lists={known} onDone={() => setNaming(false)} />}
        {folder ? (
          <>
            <FolderHead
              key={folder.key}
              who={who}
              folder={folder}
              folders={known}
              removed={removed}
              onRemoved={() => go({ removed: removed ? null : '1' })}
            />
            <FolderThreads
              key={here}
              of={inFolder}
              current={shown?.key ?? null}
              onOpen={open}
              none={t(removed ? 'folders.noneRemoved' : 'folders.none')}
            />
          </>
        ) : wanted !== null && !pending ? (
          <p className={messagesCss.empty}>{t('folders.noFolder')}</p>
        ) : (
          <NeedingThreads
            key={who}
            of={threads}
            current={shown?.key ?? null}
            onOpen={open}
            between={told.between}
            waiting={told.waiting}
            after={told.after}
          />
        )}
      </div>
      {panel?.what === 'writing' && threads.first ? (
        <aside className={messagesCss.panel} aria-label={t('threads.mail')}>
          <div className={messagesCss.for}>
            <span>{threads.first.own ? t('folders.yours') : t('folders.for', { name: threads.first.owner.name })}</span>
          </div>
          <WriteMail
            owner={threads.first.owner}
            own={threads.first.own}
            answers={null}
            draft={null}
            onDone={() => setPanel(null)}
          />
        </aside>
      ) : panel?.what === 'message' && answer ? (
        <NamedThread
          key={panel.key}
          message={panel.key}
          messages={answer}
          folders={known}
          folder={folder}
          onClose={() => setPanel(null)}
        />
      ) : panel?.what === 'rules' ? (
        <RulesPanel who={who} onClose={() => setPanel(null)} />
      ) : shown && answer && panel?.what === 'thread' ? (
        <ThreadPanel
          key={chosen?.key ?? ''}
          thread={shown}
          messages={answer}
          folders={known}
          folder={folder}
          removed={removed}
          another={panel.another}
          onAnother={(another) => setPanel({ ...panel, another })}
          onClose={() => setPanel(null)}
        />
      ) : (
        <aside className={messagesCss.panel} aria-label={t('folders.nothingOpen')}>
          <p className="soft">{t('folders.chooseOne')}</p>
        </aside>
      )}
    </div>
  );
}

/** Marks messages of somebody's as read by whoever reads them here. */
function useRead(): (who: string, keys: readonly string[]) => void {
  const client = useQueryClient();
  return (who, keys) => {
    if (keys.length === 0) return;
    call('readMessages', { params: { person: who }, body: { messages: keys.slice(0, 500) } })
      .then(() => {
        void client.invalidateQueries({ queryKey: KEYS.frame });
        void client.invalidateQueries({ queryKey: KEYS.everyonesMessages });
      })
      .catch(() => {});
  };
}
