/**
 * What a piece of material is to the makers: what it is made from (an original of the client, a picture in full size), what is worked on (a project
 * file), what is only looked at, or what was said in words. None of it goes out: what goes out is the content.
 */
export const MATERIAL_SORTS = ['original', 'working', 'reference', 'transcript'] as const;
export type MaterialSort = (typeof MATERIAL_SORTS)[number];
