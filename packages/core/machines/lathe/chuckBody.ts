/** Jaws and body of a chuck, over the bar that it holds, and how far behind the jaws' front the body begins, mm. */
export const CHUCK_MM = { jaws: 25, body: 60, bodyBehind: 18 } as const;
