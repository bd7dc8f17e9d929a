import type { Frame } from './frame.ts';
import { TRIED } from './remembered.ts';

/**
 * Tells what the app asks of described APIs, and asks it as somebody wants to try it.
 * @returns `fetch` as the browser has it
 */
export function tellRequests(frame: Frame): typeof fetch {
  const ask = globalThis.fetch.bind(globalThis);
  globalThis.fetch = async (asked, options = {}) => {
    const address = String(asked);
    if (!address.startsWith(`${frame.base}/api/`)) return ask(asked, options);
    const headers = new Headers(options.headers);
    headers.set('x-tried', sessionStorage.getItem(TRIED) ?? '');
    const by = frame.pressed;
    const began = Date.now();
    const tell = (status: number, operation: string): void =>
      frame.tell('request', {
        request: {
          method: options.method ?? 'GET',
          path: address.slice(frame.base.length + 4).replace(/^\/[^/]*/, ''),
          operation,
          status,
          ms: Date.now() - began,
        },
        by,
      });
    try {
      const response = await ask(asked, { ...options, headers });
      tell(response.status, decodeURIComponent(response.headers.get('x-operation') ?? ''));
      return response;
    } catch (error) {
      tell(0, '');
      throw error;
    }
  };
  return ask;
}
