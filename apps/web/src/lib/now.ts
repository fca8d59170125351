/** How far the server's clock is ahead of this machine's, as its last answer said. */
let aheadMs = 0;

/** Takes the time that an answer carries: the server's clock is the one that counts, whatever this machine thinks. */
export function noteNow(response: Response): void {
  const said = Date.parse(response.headers.get('Zesting-Now') ?? '');
  if (!Number.isNaN(said)) aheadMs = said - Date.now();
}

/** Now, by the server's clock. */
export const present = (): Date => new Date(Date.now() + aheadMs);
