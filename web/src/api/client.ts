/** A refusal of the server: a stable code, a sentence for people, and the field to mark if there is one. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    detail: string,
    readonly field?: string,
    readonly facts: Record<string, unknown> = {},
    /** In how many seconds it is worth while to ask again. */
    readonly retryAfter?: number,
  ) {
    super(detail);
  }
}

/** What went wrong, in a sentence for whoever pressed. */
export const sentenceOf = (error: unknown): string =>
  error instanceof ApiProblem ? error.message : 'That did not work. Please try again.';

/** Called when the server says that nobody is signed in any more. */
let onSignedOut: () => void = () => {};
export function whenSignedOut(listener: () => void) {
  onSignedOut = listener;
}

/** Whose eyes the questions are asked through; the question who one is oneself is never one of them. */
let eyes: string | null = null;
export function sendEyes(whose: string | null) {
  eyes = whose;
}

function csrfToken(): string {
  return (
    document.cookie
      .split('; ')
      .find((c) => c.startsWith('XSRF-TOKEN='))
      ?.slice('XSRF-TOKEN='.length) ?? ''
  );
}

async function problemOf(response: Response): Promise<ApiProblem> {
  const body = await response.json().catch(() => ({}));
  return new ApiProblem(
    response.status,
    body.code ?? 'unexpected',
    body.detail ?? 'The server did not answer as expected. Please try again.',
    body.field,
    body,
    Number(response.headers.get('Retry-After')) || undefined,
  );
}

/** The first answer to a fresh browser brings the token that a change needs. */
const fetchToken = () => fetch('/api/me', { credentials: 'same-origin' }).catch(() => {});

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' };
  if (method !== 'GET') {
    if (!csrfToken()) await fetchToken();
    headers['X-XSRF-TOKEN'] = csrfToken();
  }
  if (eyes && path !== '/api/me' && path !== '/api/session') headers['X-Porch-Eyes'] = eyes;
  const isForm = body instanceof FormData;
  if (body !== undefined && !isForm) headers['Content-Type'] = 'application/json';
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers,
      signal,
      credentials: 'same-origin',
      body: body === undefined ? undefined : isForm ? body : JSON.stringify(body),
    });
  } catch (e) {
    if (signal?.aborted) throw e;
    throw new ApiProblem(0, 'offline', 'The server cannot be reached just now.');
  }
  if (!response.ok) {
    const problem = await problemOf(response);
    if (problem.code === 'sign-in-first' && !eyes) onSignedOut();
    throw problem;
  }
  const text = await response.text();
  return (text ? JSON.parse(text) : undefined) as T;
}

export const getJson = <T>(path: string, signal?: AbortSignal) => call<T>('GET', path, undefined, signal);
export const postJson = <T>(path: string, body?: unknown) => call<T>('POST', path, body);
export const putJson = <T>(path: string, body?: unknown) => call<T>('PUT', path, body);
/** How often, and how long at most, a busy server is asked again. */
const PATIENCE = 4;
const LONGEST_WAIT = 20;

/** Sends a file. A server that takes in very many at the moment is asked again when it says so. */
export async function postFile<T>(path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append('file', file);
  for (let tried = 0; ; tried++) {
    try {
      return await call<T>('POST', path, form);
    } catch (e) {
      const wait = e instanceof ApiProblem && e.status === 429 ? e.retryAfter : undefined;
      if (!wait || wait > LONGEST_WAIT || tried === PATIENCE) throw e;
      await new Promise((later) => setTimeout(later, wait * 1_000));
    }
  }
}

export const deleteJson = <T>(path: string) => call<T>('DELETE', path);

/** A path with the given parameters; those that are empty are left out. */
export function withParams(path: string, params: Record<string, string | number | boolean | undefined | null>): string {
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(params))
    if (value !== undefined && value !== null && value !== '' && value !== false) search.set(name, String(value));
  const text = search.toString();
  return text ? `${path}?${text}` : path;
}
