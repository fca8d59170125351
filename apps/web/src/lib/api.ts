import type { ProblemCode } from '@zesting/contract/problems';
import { noteNow } from './now';
import { followWrite } from './own-changes';
import { problemWords } from './words';

/** A refusal by the server, or a connection that failed (`http.offline`). */
export class ApiProblem extends Error {
  constructor(
    readonly code: ProblemCode | 'http.offline' | 'http.unexpected' | (string & {}),
    readonly status: number,
    readonly body: Readonly<Record<string, unknown>>,
  ) {
    super(problemWords(code, body));
  }

  /** Broken rules by field. */
  get errors(): Readonly<Record<string, string | readonly string[]>> {
    return (this.body['errors'] ?? {}) as Record<string, string | string[]>; // the shape of ProblemDetails
  }
}

export interface CallOptions {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly body?: unknown;
  /** the version that the change was made against */
  readonly version?: number;
  readonly idempotencyKey?: string;
  readonly signal?: AbortSignal;
}

let linkToken: string | null = null;
/** From now on each call says the token of a link: a page embedded in another site's gets no cookies. */
export const sayLink = (token: string): void => void (linkToken = token);
/** What every call says beside its own. */
export const linkHeaders = (): Record<string, string> => (linkToken === null ? {} : { 'Zesting-Link': linkToken });

/** Calls the API; refusals are thrown as `ApiProblem`. */
export async function call<T>(path: string, { method = 'GET', body, version, idempotencyKey, signal }: CallOptions = {}): Promise<T> {
  const isForm = body instanceof FormData;
  const headers: Record<string, string> = {
    ...linkHeaders(),
    ...(body !== undefined && !isForm ? { 'Content-Type': 'application/json' } : {}),
    ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
    ...(idempotencyKey === undefined ? {} : { 'Idempotency-Key': idempotencyKey }),
  };
  let response: Response;
  try {
    const asked = fetch(`/api${path}`, {
      method,
      headers,
      ...(signal ? { signal } : {}),
      body: isForm ? body : body === undefined ? null : JSON.stringify(body),
    });
    response = await (method === 'GET' ? asked : followWrite(asked));
  } catch {
    throw new ApiProblem('http.offline', 0, {});
  }
  noteNow(response);
  if (response.status === 204) return undefined as T; // callers of such routes ask for void
  const answer: unknown = await response.json().catch(() => ({}));
  if (response.ok) return answer as T; // the contract's shape for this path
  const problem = answer as { code?: string };
  throw new ApiProblem(problem.code ?? 'http.unexpected', response.status, problem as Record<string, unknown>);
}

/** Uploads one file. */
export function upload<T>(path: string, file: File, options: Pick<CallOptions, 'method' | 'version'> = {}): Promise<T> {
  const form = new FormData();
  form.append('file', file);
  return call<T>(path, { method: 'POST', ...options, body: form });
}

/** The words of any failure, for a message. */
export const wordsOf = (error: unknown): string => (error instanceof ApiProblem ? error.message : problemWords('http.unexpected'));
