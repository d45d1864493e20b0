// The frame that the page is in: its document, and what stands for a section or block there.

// It has no id: htmx gives what has one its focus back after each answer, and would take it
// from the words that are being written in it.
export const frame = document.querySelector('iframe.canvas');

export const doc = () => frame.contentDocument;

/** The element of a section or block. */
export function element(id) {
  return id ? doc().querySelector(`[data-section="${id}"], [data-block="${id}"]`) : null;
}
