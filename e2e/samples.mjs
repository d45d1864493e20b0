// How often a measure is taken: as often as its figure needs with OPENPLOT_MEASURE=1, and otherwise
// as often as it takes to see that it works.
export const measuring = Boolean(process.env.OPENPLOT_MEASURE);
export const samples = (n) => (measuring ? n : Math.max(2, Math.ceil(n / 5)));
