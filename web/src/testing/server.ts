import { afterEach, beforeEach, vi } from 'vitest';

/** A call of the page that waits for its answer. */
export interface Call {
  method: string;
  path: string;
  body: unknown;
  headers: Record<string, string>;
  /** Answers it; more than 299 is a refusal, as the server writes one. */
  answer: (body: unknown, status?: number) => void;
  /** The network is gone. */
  lose: () => void;
}

/**
 * Stands in for the server in a test of a part of the page: what is asked lies in `calls` until the test answers it, so that a test says
 * what comes before what. Answers of `always` come by themselves.
 */
export function fakeServer() {
  const calls: Call[] = [];
  const always = new Map<string, () => unknown>();
  beforeEach(() => {
    calls.length = 0;
    always.clear();
    localStorage.clear();
    // biome-ignore lint/suspicious/noDocumentCookie: as the server does
    document.cookie = 'XSRF-TOKEN=one-of-many';
    vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) => {
      const method = init.method ?? 'GET';
      const own = always.get(`${method} ${path}`);
      if (own) return Promise.resolve(new Response(JSON.stringify(own())));
      return new Promise<Response>((resolve, reject) => {
        const call: Call = {
          method,
          path,
          body: typeof init.body === 'string' ? JSON.parse(init.body) : init.body,
          headers: init.headers as Record<string, string>,
          answer: (body, status = 200) => {
            calls.splice(calls.indexOf(call), 1);
            resolve(new Response(body === undefined ? '' : JSON.stringify(body), { status }));
          },
          lose: () => {
            calls.splice(calls.indexOf(call), 1);
            reject(new TypeError('network'));
          },
        };
        init.signal?.addEventListener('abort', () => {
          calls.splice(calls.indexOf(call), 1);
          reject(new DOMException('aborted', 'AbortError'));
        });
        calls.push(call);
      });
    });
  });
  afterEach(() => vi.unstubAllGlobals());
  return {
    calls,
    always,
    /** The next call that waits, when it has come. */
    next: (method: string, path?: RegExp) =>
      vi.waitFor(() => {
        const call = calls.find((c) => c.method === method && (!path || path.test(c.path)));
        if (!call)
          throw new Error(
            `nobody asked ${method} ${path ?? ''}; asked was ${calls.map((c) => `${c.method} ${c.path}`).join(', ') || 'nothing'}`,
          );
        return call;
      }),
  };
}
