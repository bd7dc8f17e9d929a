import { useEffect } from 'react';
import { Outlet, ScrollRestoration, useLocation, useMatches } from 'react-router';

/** What stands around every screen: the page title, the scroll position. */
export function Shell() {
  const { hash, key } = useLocation();
  const handle = useMatches().at(-1)?.handle as { title?: string } | undefined;

  useEffect(() => {
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
  }, [hash, key]);

  return (
    <>
      {handle?.title && <title>{handle.title}</title>}
      <Outlet />
      <ScrollRestoration />
    </>
  );
}
