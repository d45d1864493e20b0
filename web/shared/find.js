// How lists are searched: every word that is written has to be in what is listed, in any order.

/** The words of what somebody wrote. */
export const wordsOf = (written) => written.toLowerCase().split(/\s+/).filter(Boolean);

/** Whether a text has all of some words, or their beginnings anywhere in it. */
export const hasAll = (text, words) => {
  const all = text.toLowerCase();
  return words.every((w) => all.includes(w));
};
