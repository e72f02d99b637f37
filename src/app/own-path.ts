/** A path of our own out of an address somebody gave, or `/`: what a browser would read as leading elsewhere isn't one. */
export function ownPath(wanted: string | null | undefined): string {
  const here = 'http://here.invalid';
  try {
    // Read as a browser reads it: tabs and line ends fall away, a backslash is a slash.
    const url = new URL(wanted ?? '/', here);
    return url.origin === here && url.username === ''
      ? `${url.pathname.replace(/^\/+/, '/')}${url.search}${url.hash}`
      : '/';
  } catch {
    return '/';
  }
}
