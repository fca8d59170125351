/** Waits for what a job does in its own time: looks every 50 ms until it holds, and fails after half a minute or as long as is said. */
export async function eventually(holds: () => boolean | Promise<boolean>, patienceMs = 30_000): Promise<void> {
  for (let waited = 0; waited < patienceMs; waited += 50) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`it did not come to hold within ${patienceMs / 1000} seconds`);
}
