// axe-core's findings by WCAG 2.0 to 2.2, A and AA. Under our content security policy
// it is evaluated, not added as a script.
import fs from 'node:fs';

const source = fs.readFileSync(new URL('node_modules/axe-core/axe.min.js', import.meta.url), 'utf8');
const values = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What axe finds wrong with a page, a line each. */
export async function findings(page) {
  if (!(await page.evaluate('Boolean(window.axe)'))) await page.evaluate(source);
  const found = await page.evaluate(
    (tags) =>
      window.axe.run(document, { runOnly: { type: 'tag', values: tags }, iframes: false, resultTypes: ['violations'] }),
    values,
  );
  if (found.passes.length < 4) return ['axe looked at nothing'];
  return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);
}
