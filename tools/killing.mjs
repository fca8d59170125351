// What the tortures share: chance out of a seed, and an application that is kept running however often it is killed. Plain Node.

export const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Numbers from 0 to 1 out of a seed: linear congruential, constants of Numerical Recipes (from memory). */
export function chance(seed) {
  let state = seed >>> 0;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
}

/** Keeps the application running as `npm start` does: what ends is started again. */
export function keepRunning(zesting) {
  const kept = { child: null, starts: 0, isEnding: false };
  const start = async () => {
    kept.starts++;
    const child = await zesting.start('apps/server/dist/main.js').catch(() => null);
    if (!child) return void (kept.isEnding || setTimeout(() => void start(), 500));
    kept.child = child;
    child.once('exit', () => {
      kept.child = null;
      if (!kept.isEnding) setTimeout(() => void start(), 200);
    });
  };
  return start().then(() => kept);
}
