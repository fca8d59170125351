/** The Hungarian method, as the tests ask it: rows and columns of the least assignment. */
declare module 'munkres-js' {
  export default function munkres(costs: number[][]): [row: number, column: number][];
}
