/**
 * The `meta` of a query of what stands as people wrote it, such as guidelines or remarks: it is not asked for again where nothing but days
 * was reckoned anew, which follows every write in the client's work.
 */
export const AS_WRITTEN = { isAsWritten: true } as const;
