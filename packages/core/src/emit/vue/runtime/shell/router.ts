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
      return saved ?? (to.hash ? { el: to.hash } : { top: 0 });
    },
  });
  playTransitions(router);
  router.afterEach((to, _from, failure) => {
    if (!failure && typeof to.meta.title === 'string') document.title = to.meta.title;
  });
  return router;
}
