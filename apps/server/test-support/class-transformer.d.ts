/** What class-transformer keeps of `@Type` and does not describe. */
declare module 'class-transformer/cjs/storage.js' {
  export const defaultMetadataStorage: {
    readonly findTypeMetadata: (
      target: unknown,
      property: string,
    ) => { readonly typeFunction: () => unknown; readonly reflectedType: unknown } | undefined;
  };
}
