/** The thing at a place of a list, which must be there; from the end with a negative one. */
export function nth<Thing>(list: readonly Thing[], index: number): Thing {
  const thing = list.at(index);
  if (thing === undefined) throw new Error(`there is nothing at ${index} of ${list.length}`);
  return thing;
}
