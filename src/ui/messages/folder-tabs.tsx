import Button from '@mui/material/Button';
import ListSubheader from '@mui/material/ListSubheader';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { FolderWire } from '@/contract/messages.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import messagesCss from './messages.module.css';
import { useInnerFolders } from './use-folders.ts';

const ON_TOP: ReadonlySet<string | null> = new Set(['arrived', 'sent', 'drafts']);

/** What needs an answer, and the folders: those everybody begins with in one row, what was filed and what others gave in a menu. */
export function FolderTabs(props: {
  who: string;
  lists: readonly FolderWire[];
  others: readonly FolderWire[];
  current: FolderWire | null;
  /** How much needs somebody here; `null` before that is known. */
  needing: number | null;
  /** Whether there is more than folders to look at. */
  first: boolean;
  onNew: () => void;
  onRules: () => void;
}) {
  const { who, lists, others, current, needing, first, onNew, onRules } = props;
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const { frame } = useFrame();
  const [at, setAt] = useState<HTMLElement | null>(null);
  const router = useRouter();
  const own = who === frame.me.handle;
  const go = (folder: FolderWire) => {
    setAt(null);
    router.push(`/for/${who}/messages?folder=${folder.key}`);
  };
  const filed = lists.filter((one) => !ON_TOP.has(one.role));
  const owners = [...new Map(others.map((one) => [one.owner.handle, one.owner])).values()];
  const inMenu = current !== null && !ON_TOP.has(current.role);
  return (
    <>
      {first && (
        <Link href={`/for/${who}/messages`} aria-current={current === null ? 'page' : undefined}>
          {t('needs')} {needing !== null && needing > 0 && <b className="wrong">{needing}</b>}
        </Link>
      )}
      {lists
        .filter((one) => ON_TOP.has(one.role))
        .map((one) => (
          <Link
            key={one.key}
            href={`/for/${who}/messages?folder=${one.key}`}
            aria-current={one.key === current?.key && one.own === current.own ? 'page' : undefined}
          >
            {nameOf('folder', one.name)} {one.unread > 0 && <span>{one.unread > 99 ? '99+' : one.unread}</span>}
          </Link>
        ))}
      {(own || filed.length > 0 || others.length > 0) && (
        <>
          <Button
            variant="text"
            color="inherit"
            className={messagesCss.more ?? ''}
            aria-haspopup="menu"
            aria-expanded={at !== null}
            aria-current={inMenu ? 'page' : undefined}
            onClick={(event) => setAt(event.currentTarget)}
          >
            {inMenu && current ? nameOf('folder', current.name) : t('filed')} ▾
          </Button>
          <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
            {filed.flatMap((one) => (
              <Branch key={one.key} who={who} folder={one} depth={0} onGo={go} />
            ))}
            {owners.flatMap((owner) => [
              <ListSubheader key={owner.handle} className={messagesCss.owner}>
                {t('ofOwner', { name: owner.name })}
              </ListSubheader>,
              ...others
                .filter((one) => one.owner.handle === owner.handle)
                .map((one) => <Branch key={one.key} who={who} folder={one} depth={0} onGo={go} />),
            ])}
            {own && (
              <MenuItem
                onClick={() => {
                  setAt(null);
                  onNew();
                }}
              >
                {t('newFolder')}
              </MenuItem>
            )}
            {own && (
              <MenuItem
                onClick={() => {
                  setAt(null);
                  onRules();
                }}
              >
                {t('rules')}
              </MenuItem>
            )}
          </Menu>
        </>
      )}
    </>
  );
}

/** A folder and, once it is opened, those in it. */
function Branch({
  who,
  folder,
  depth,
  onGo,
}: {
  who: string;
  folder: FolderWire;
  depth: number;
  onGo: (folder: FolderWire) => void;
}) {
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const [open, setOpen] = useState(false);
  const inner = useInnerFolders(who, folder, open);
  const within = [...(inner.data?.lists ?? []), ...(inner.data?.others ?? [])];
  const name = nameOf('folder', folder.name);
  return (
    <>
      <MenuItem onClick={() => onGo(folder)} sx={{ pl: 2 + depth * 2 }}>
        <span className="grow">{name}</span>
        {folder.unread > 0 && <span className="small soft">{folder.unread > 99 ? '99+' : folder.unread}</span>}
      </MenuItem>
      {folder.inner && !open && (
        <MenuItem sx={{ pl: 4 + depth * 2 }} className="small soft" onClick={() => setOpen(true)}>
          {t('foldersIn', { name })}
        </MenuItem>
      )}
      {within.map((one) => (
        <Branch key={one.key} who={who} folder={one} depth={depth + 1} onGo={onGo} />
      ))}
    </>
  );
}
