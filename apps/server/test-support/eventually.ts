/** Waits for what a job does in its own time: looks every 50 ms until it holds, and fails after ten seconds. */
export async function eventually(holds: () => boolean | Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('it did not come to hold within ten seconds');
}
