import { createRouter, type Router, type RouterHistory } from 'vue-router';
import { playTransitions } from '../navigation/history';
import { routes } from '../routes';

/** The router of the app: with it come the page title, the scroll position, and how screens arrive. */
export function newRouter(history: RouterHistory): Router {
  const router = createRouter({
    history,
    routes,
    scrollBehavior: (to, from, saved) => {
      if (to.path === from.path && !to.hash) return false;
      if (saved || !to.hash) return saved ?? { top: 0 };
      // Parts that are closed open for what is sought in them.
      const place = document.getElementById(decodeURIComponent(to.hash.slice(1)));
      place?.dispatchEvent(new Event('beforematch', { bubbles: true }));
      return { el: to.hash };
    },
  });
  playTransitions(router);
  router.afterEach((to, _from, failure) => {
    if (!failure && typeof to.meta.title === 'string') document.title = to.meta.title;
  });
  return router;
}
