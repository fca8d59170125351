import { lazy, type ComponentType, type LazyExoticComponent } from 'react';

const loaders: (() => Promise<unknown>)[] = [];
const RELOADED = 'zesting.reloaded-at';

/**
 * A page that is loaded when its address is first opened.
 * @param load imports the page's module
 * @param name the component that it exports
 */
export function lazyPage<Name extends string>(
  load: () => Promise<Record<Name, ComponentType>>,
  name: Name,
): LazyExoticComponent<ComponentType> {
  loaders.push(load);
  return lazy(async () => ({ default: (await load().catch(reloadOnce))[name] }));
}

/** A new version took the place of the pages that this window knows: it is loaded anew, once, and not again and again. */
function reloadOnce(error: unknown): never {
  const last = Number(sessionStorage.getItem(RELOADED) ?? 0);
  if (performance.timeOrigin - last > 60_000) {
    sessionStorage.setItem(RELOADED, String(performance.timeOrigin));
    window.location.reload();
  }
  throw error;
}

/** Loads the other pages while nothing else is to be done, so that going there is quick. */
export function loadTheRest(): void {
  const idle = window.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 2_000));
  const next = () => {
    const load = loaders.shift();
    if (load)
      void load()
        .catch(() => undefined)
        .finally(() => idle(next)); // it is asked for again when it is needed
  };
  idle(next);
}
