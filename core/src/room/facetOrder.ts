/** Ways of sound that are looked at, at most; they grow with the number of faces to the power of the order. */
const MOST_WAYS = 6000;
const MOST_ORDER = 5;

/** The order of image sources that can be looked at in a room of so many faces. */
export function facetOrder(faces: number): number {
  let order = 1;
  const ways = (n: number) => faces * Math.max(1, faces - 1) ** (n - 1);
  while (order < MOST_ORDER && ways(order + 1) <= MOST_WAYS) order++;
  return order;
}
