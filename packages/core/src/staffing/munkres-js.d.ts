/** The Hungarian method, as the tests ask it: rows and columns of the least assignment. */
declare module 'munkres-js' {
  const munkres: (costs: number[][]) => [row: number, column: number][];
  export = munkres;
}
