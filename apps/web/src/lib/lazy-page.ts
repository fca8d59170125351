import { isValidElement, lazy, type ComponentType, type LazyExoticComponent } from 'react';
import { matchRoutes, type RouteObject } from 'react-router';

const loaders = new WeakMap<object, () => Promise<unknown>>();
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
  const page = lazy(async () => ({ default: (await load().catch(reloadOnce))[name] }));
  loaders.set(page, load);
  return page;
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

/** Loads the pages of an address inside the application, so that going there is quick. */
export function loadAhead(routes: RouteObject[], address: string): void {
  for (const { route } of matchRoutes(routes, address) ?? []) {
    const page = isValidElement(route.element) ? route.element.type : undefined;
    const load = typeof page === 'object' ? loaders.get(page) : undefined;
    void load?.().catch(() => undefined); // it is asked for again when it is needed
  }
}
