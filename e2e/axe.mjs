// axe-core's findings by WCAG 2.0 to 2.2, A and AA. Under our content security policy
// it is evaluated, not added as a script.
import fs from 'node:fs';

const source = fs.readFileSync(new URL('node_modules/axe-core/axe.min.js', import.meta.url), 'utf8');
const values = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** The rules whose answer depends on the width of the window; the others look at elements and words alone. */
const byWidth = ['color-contrast', 'target-size', 'scrollable-region-focusable', 'link-in-text-block'];

/** What axe finds wrong with a page at another width than the one at which all rules were asked, a line each. */
export const findingsAtWidth = (page) => findings(page, { type: 'rule', values: byWidth });

/** What axe finds wrong with a page, a line each. */
export async function findings(page, only = { type: 'tag', values }) {
  if (!(await page.evaluate('Boolean(window.axe)'))) await page.evaluate(source);
  const found = await page.evaluate(
    (runOnly) => window.axe.run(document, { runOnly, iframes: false, resultTypes: ['violations'] }),
    only,
  );
  const looked = [found.passes, found.inapplicable, found.incomplete, found.violations].flat().length;
  if (looked < (only.type === 'rule' ? only.values.length : 4)) return ['axe looked at nothing'];
  return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);
}
