import type { INestApplication } from '@nestjs/common';
import { MetadataScanner, ModulesContainer, Reflector } from '@nestjs/core';
import { ruleOf } from './access.js';

/** Stops the start when any route names no policy: nothing is open because somebody forgot. */
export function requirePolicies(app: INestApplication): void {
  const reflector = app.get(Reflector);
  const scanner = new MetadataScanner();
  for (const { controllers } of app.get(ModulesContainer).values())
    for (const { metatype } of controllers.values()) {
      const prototype = (metatype as { prototype?: object } | null)?.prototype;
      if (!prototype) continue;
      for (const name of scanner.getAllMethodNames(prototype)) {
        const handler: unknown = Reflect.get(prototype, name);
        if (typeof handler === 'function' && Reflect.hasMetadata('path', handler) && !ruleOf(reflector, handler as () => unknown))
          throw new Error(`${metatype?.name ?? ''}.${name} names no policy`);
      }
    }
}
