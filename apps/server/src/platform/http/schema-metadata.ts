import { existsSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';

type Metadata = () => Promise<Record<string, unknown>>;

/** The contract's shapes for OpenAPI, printed at build time beside the compiled server. Without a build there are none. */
export const schemaMetadata: Metadata = async () => {
  const path = fileURLToPath(new URL('../../openapi-metadata.js', metaUrl()));
  if (!existsSync(path)) return {};
  const loaded = (await import(pathToFileURL(path).href)) as { default: Metadata };
  return loaded.default();
};

/** This file's address; tests compile to CommonJS, where there is none. */
const metaUrl = (): string => import.meta.url;
