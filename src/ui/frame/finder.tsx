'use client';
import Autocomplete, { createFilterOptions } from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useFrame } from '../common/frame-context.tsx';
import { firstName } from '../common/token.tsx';
import finderCss from './finder.module.css';

/** However many people there are, a list stays short enough to look through. */
const few = createFilterOptions<{ label: string; goal: string }>({ limit: 60 });

/** The command palette: everything one can go to or begin, by typing. Ctrl or Command with K opens it. */
export function Finder() {
  const t = useTranslations('finder');
  const band = useTranslations('band');
  const router = useRouter();
  const { frame, principal } = useFrame();
  const [open, setOpen] = useState(false);
  const people = useQuery({ queryKey: ['people'], queryFn: () => call('listPeople', {}), enabled: open });

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setOpen(true);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const options = useMemo(() => {
    const mine = frame.me.handle;
    const who = principal?.handle ?? mine;
    return [
      {
        label: principal && !principal.own ? t('new', { name: firstName(principal.name) }) : t('newMine'),
        goal: `/for/${who}/calendar?new=1`,
      },
      { label: t('today'), goal: `/for/${who}/calendar` },
      ...frame.principals.map((p) => ({
        label: p.own ? t('workSelf') : t('workFor', { name: p.name }),
        goal: `/for/${p.handle}/calendar`,
      })),
      ...frame.principals
        .filter((p) => p.share)
        .map((p) => ({
          label: p.own ? t('sightlinesMine') : t('sightlines', { name: p.name }),
          goal: `/for/${p.handle}/sightlines`,
        })),
      ...(frame.principals.some((p) => p.own && p.share)
        ? [{ label: t('give'), goal: `/for/${mine}/sightlines?give=1` }]
        : []),
      { label: t('messages'), goal: `/for/${who}/messages` },
      { label: t('people'), goal: `/for/${who}/people` },
      ...(frame.me.inside ? [{ label: t('houseRules'), goal: `/for/${who}/house-rules` }] : []),
      { label: t('settings'), goal: `/for/${mine}/settings` },
      ...(people.data?.people ?? [])
        .filter((p) => p.rights.sight !== 'nothing' && p.handle !== mine)
        .map((p) => ({ label: t('look', { name: p.name }), goal: `/for/${mine}/calendar?of=${p.handle}` })),
    ];
  }, [frame, people.data, principal, t]);

  return (
    <>
      <button type="button" className={`plain ${finderCss.finder}`} onClick={() => setOpen(true)}>
        {band('find')} <kbd>Ctrl K</kbd>
      </button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="sm"
        aria-label={t('title')}
        slotProps={{ paper: { sx: { border: '1px solid var(--line)', p: 1.5, alignSelf: 'flex-start', mt: 8 } } }}
      >
        <Autocomplete
          open
          disablePortal
          autoHighlight
          options={options}
          filterOptions={few}
          getOptionKey={(o) => `${o.goal} ${o.label}`}
          noOptionsText={t('none')}
          // The list is all there is here: leaving it is leaving the whole.
          onClose={(_, reason) => {
            if (reason === 'escape') setOpen(false);
          }}
          onChange={(_, option) => {
            if (!option) return;
            setOpen(false);
            router.push(option.goal);
          }}
          slotProps={{
            listbox: { sx: { maxHeight: 320 } },
            paper: { sx: { border: 0, position: 'static' } },
            popper: { sx: { position: 'static !important', transform: 'none !important', width: '100% !important' } },
          }}
          renderInput={(params) => (
            <TextField
              {...params}
              autoFocus
              placeholder={t('placeholder')}
              slotProps={{
                ...params.slotProps,
                htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': t('title') },
              }}
            />
          )}
        />
      </Dialog>
    </>
  );
}
