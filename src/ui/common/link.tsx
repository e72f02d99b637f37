'use client';
import NextLink from 'next/link';
import { type ComponentProps, useState } from 'react';

/**
 * A link to another screen. The screen is fetched ahead once the link is pointed at or has the focus, not as soon as it is visible: a
 * screen has two dozen links, and all of them would be fetched at each page load.
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
