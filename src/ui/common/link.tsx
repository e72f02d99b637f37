'use client';
import NextLink from 'next/link';
import { type ComponentProps, useState } from 'react';

/**
 * A link to another screen. What is behind it is asked for once it is pointed at or has the focus, and not by being seen: a screen
 * has two dozen of them, and each would be asked for at every look.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  const [meant, setMeant] = useState(false);
  return (
    <NextLink
      {...props}
      prefetch={props.prefetch ?? (meant ? null : false)}
      onMouseEnter={(event) => {
        setMeant(true);
        props.onMouseEnter?.(event);
      }}
      onFocus={(event) => {
        setMeant(true);
        props.onFocus?.(event);
      }}
    />
  );
}
