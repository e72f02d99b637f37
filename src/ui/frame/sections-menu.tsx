'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { Link } from '../common/link.tsx';

/** Where something is, and what it is called. */
export interface Way {
  readonly href: string;
  readonly name: string;
}

/** Sections to go to, opened from a phone's bar. */
export function SectionsMenu(props: { ways: readonly Way[]; anchor: HTMLElement; onClose: () => void }) {
  const { ways, anchor, onClose } = props;
  return (
    <Menu anchorEl={anchor} open onClose={onClose}>
      {ways.map(({ href, name }) => (
        <MenuItem key={href} component={Link} href={href} onClick={onClose}>
          {name}
        </MenuItem>
      ))}
    </Menu>
  );
}
