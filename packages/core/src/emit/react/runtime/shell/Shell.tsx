import { useEffect } from 'react';
import { type Location, Outlet, ScrollRestoration, useLocation, useMatches } from 'react-router';

// The first page of each visit has the same key: one address would take over the scroll position of another.
const entryOf = ({ key, pathname }: Location) => (key === 'default' ? pathname : key);

/** What stands around every screen: the page title, the scroll position. */
export function Shell() {
  const { hash, key } = useLocation();
  const handle = useMatches().at(-1)?.handle as { title?: string } | undefined;

  useEffect(() => {
    const place = hash && document.getElementById(decodeURIComponent(hash.slice(1)));
    if (!place) return;
    // Parts that are closed open for what is sought in them.
    place.dispatchEvent(new Event('beforematch', { bubbles: true }));
    place.scrollIntoView();
  }, [hash, key]);

  return (
    <>
      {handle?.title && <title>{handle.title}</title>}
      <Outlet />
      <ScrollRestoration getKey={entryOf} />
    </>
  );
}
