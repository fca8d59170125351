/** What became of asking for a page. */
export type PageAnswer = { readonly isKnown: true; readonly status: number | null } | { readonly isKnown: false };

const TIMEOUT_MS = 20_000;

/**
 * Asks for a page through the asker, a small service that alone goes out to the web (docs/channels.md): Zesting itself calls no address that somebody
 * typed. `status: null` where the page did not answer; unknown where the asker did not.
 * @param asker its address, without a slash at its end
 */
export async function askPage(asker: string, address: string): Promise<PageAnswer> {
  try {
    const response = await fetch(`${asker}/pages`, {
      method: 'POST',
      redirect: 'manual',
      signal: AbortSignal.timeout(TIMEOUT_MS),
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ address }),
    });
    if (response.status !== 200) return { isKnown: false };
    return toAnswer(await response.json());
  } catch {
    return { isKnown: false };
  }
}

/** An answer of the asker: a status of HTTP, or null. All else says nothing. */
function toAnswer(value: unknown): PageAnswer {
  if (typeof value !== 'object' || value === null || !('status' in value)) return { isKnown: false };
  const { status } = value;
  if (status === null) return { isKnown: true, status };
  return typeof status === 'number' && Number.isInteger(status) && status >= 100 && status <= 599
    ? { isKnown: true, status }
    : { isKnown: false };
}
