// How often a measure is taken: as often as its figure needs with OPENPLOT_MEASURE=1, and otherwise
// as often as it takes to see that it works.
export const measuring = Boolean(process.env.OPENPLOT_MEASURE);
export const samples = (n) => (measuring ? n : Math.max(2, Math.ceil(n / 5)));

/** Numbers that come in the same order every time (mulberry32). */
export function random(seed) {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}
