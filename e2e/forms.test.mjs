// Forms as visitors meet them: every kind of field, with and without a script, by keys alone, and what is said of
// what isn't right.
import assert from 'node:assert/strict';
import { after, before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { eventually, newPage, publish, ready, signIn } from './person.mjs';

const path = '/sites/skerry-line/pages/ask-for-a-berth';
const fields = [
  { label: 'How was the last time', type: 'rating' },
  { label: 'News by mail', type: 'yes-no' },
  { label: 'Offer', type: 'hidden', parameter: 'offer', value: 'none' },
  { label: 'About animals', type: 'between', hint: 'They travel on deck.' },
  {
    label: 'How many sheep',
    type: 'number',
    required: 'yes',
    min: '1',
    max: '40',
    when: 'What needs a berth',
    is: 'Sheep',
  },
  { label: 'The last bits', type: 'step' },
  { label: 'Code of the quay', type: 'text', only: 'digits', min: '3', required: 'yes' },
];

let address = ''; // of the published page
before(async () => {
  await signIn(page, plot.app, designer);
  await page.goto(`${plot.site}/ask-for-a-berth/`);
  const node = (await page.locator('form[action^="/_forms/"]').getAttribute('action')).split('/').at(-1);
  let base = 0; // what the page was like when the command was given
  const seq = (text) => Number(/"seq":(\d+)/.exec(text)[1]);
  base = seq(await (await page.request.get(`${plot.app}${path}/bench`)).text());
  const send = async (command) => {
    const r = await page.request.post(`${plot.app}${path}/edits`, {
      form: { command: JSON.stringify({ node, base, ...command }), width: '1280' },
    });
    const text = await r.text();
    assert.equal(r.status(), 200, `${command.op}: ${text.slice(0, 300)}`);
    base = seq(text);
  };
  for (const [i, field] of fields.entries()) {
    await send({ op: 'entry.add', at: 7 + i });
    for (const [setting, value] of Object.entries({ required: 'no', ...field })) {
      await send({ op: 'entry.set', at: 7 + i, setting, value });
    }
  }
  await send({ op: 'block.content', setting: 'thanks', value: 'See you at the steps.' });
  await page.goto(`${plot.app}${path}/bench`);
  await ready(page);
  await publish(page);
  address = await page.getByRole('link', { name: /Open it/ }).getAttribute('href');
});

const entered = async () => {
  const list = await (await page.request.get(`${plot.app}/sites/skerry-line/entries/file?as=json`)).json();
  return list.map((e) => Object.fromEntries(e.answers.map((a) => [a.field, a.value])));
};

test('with a script there is a step at a time, and a field when it is wanted: by keys', async () => {
  const visitor = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await visitor.goto(`${address}?offer=winter`);
  await visitor.getByText('1 / 2').waitFor();
  assert.deepEqual(await findings(visitor), []);
  const code = visitor.getByLabel(/^Code of the quay/);
  const sheep = visitor.getByLabel(/^How many sheep/);
  assert.ok(!(await code.isVisible()) && !(await sheep.isVisible()), 'what comes later isn’t there yet');
  assert.equal(await visitor.getByText('Only if').count(), await visitor.locator('[data-only][hidden]').count());
  const keys = async (...all) => {
    for (const key of all) await visitor.keyboard.press(key);
  };
  await visitor.getByLabel(/^Your name/).focus();
  await visitor.keyboard.type('Mo Lind');
  // What isn't filled in keeps one on the step, and is where one is led.
  await visitor.getByRole('button', { name: 'Next' }).press('Enter');
  await eventually(
    () => visitor.evaluate(() => document.activeElement.name),
    'Where to answer',
    'led to what is missing',
  );
  await visitor.keyboard.type('mo@lind.example');
  await visitor.getByLabel(/^Day of the sailing/).fill('2026-12-05');
  await visitor.getByLabel('Sailing (required)', { exact: true }).focus();
  await keys('ArrowDown');
  await visitor.getByLabel('A car', { exact: true }).focus();
  await keys('Space', 'ArrowDown', 'ArrowDown'); // a car, a cart, sheep
  await sheep.waitFor();
  assert.deepEqual(await findings(visitor), []);
  await sheep.fill('41');
  await visitor.getByRole('button', { name: 'Next' }).press('Enter');
  await eventually(
    () => visitor.evaluate(() => document.activeElement.name),
    'How many sheep',
    'led to what is too much',
  );
  await sheep.fill('12');
  await visitor.getByLabel('4', { exact: true }).check();
  await visitor.getByLabel('News by mail').press('Space');
  await visitor.getByRole('button', { name: 'Next' }).press('Enter');
  await visitor.getByText('2 / 2').waitFor();
  assert.ok(!(await sheep.isVisible()), 'the step before is gone');
  assert.equal(await visitor.evaluate(() => document.activeElement.textContent), 'The last bits');
  assert.deepEqual(await findings(visitor), []);
  await code.fill('12a');
  await visitor.getByLabel('You may keep this').press('Space');
  await visitor.getByRole('button', { name: 'Ask for the berth' }).press('Enter');
  assert.match(await code.evaluate((e) => e.validationMessage), /./);
  await code.fill('1234');
  await visitor.getByRole('button', { name: 'Back' }).press('Enter');
  await visitor.getByText('1 / 2').waitFor();
  assert.equal(await sheep.inputValue(), '12', 'nothing is lost by going back');
  await visitor.getByRole('button', { name: 'Next' }).press('Enter');
  await visitor.getByRole('button', { name: 'Ask for the berth' }).press('Enter');
  await visitor.getByText('See you at the steps.').waitFor();
  assert.deepEqual(await findings(visitor), []);
  assert.deepEqual(visitor.wrong, []);
  const kept = (await entered()).find((e) => e['Your name'] === 'Mo Lind');
  assert.equal(
    [
      kept['How many sheep'],
      kept.Offer,
      kept['How was the last time'],
      kept['News by mail'],
      kept['Code of the quay'],
    ].join(),
    '12,winter,4,Yes,1234',
  );
});

test('what isn’t wanted any more is neither asked for nor sent', async () => {
  const visitor = await newPage(await browser.newContext({ viewport: { width: 375, height: 800 } }));
  await visitor.goto(address);
  await visitor.getByLabel(/^Your name/).fill('Per Dahl');
  await visitor.getByLabel(/^Where to answer/).fill('per@dahl.example');
  await visitor.getByLabel(/^Day of the sailing/).fill('2026-12-05');
  await visitor.getByLabel('Sailing (required)', { exact: true }).selectOption({ index: 1 });
  await visitor.getByLabel('Sheep', { exact: true }).check();
  await visitor.getByLabel(/^How many sheep/).fill('3');
  await visitor.getByLabel('A car', { exact: true }).check();
  await visitor.getByRole('button', { name: 'Next' }).click();
  await visitor.getByLabel(/^Code of the quay/).fill('555');
  await visitor.getByLabel('You may keep this').check();
  await visitor.getByRole('button', { name: 'Ask for the berth' }).click();
  await visitor.getByText('See you at the steps.').waitFor();
  const kept = (await entered()).find((e) => e['Your name'] === 'Per Dahl');
  assert.ok(!('How many sheep' in kept), JSON.stringify(kept));
  assert.deepEqual(visitor.wrong, []);
});

test('without a script everything is there with a word about it, and is checked where it arrives', async () => {
  const c = await browser.newContext({ viewport: { width: 800, height: 900 }, javaScriptEnabled: false });
  const visitor = await newPage(c);
  await visitor.goto(`${address}?offer=spring`);
  const sheep = visitor.getByLabel(/^How many sheep/);
  assert.ok(await sheep.isVisible());
  await visitor.getByText('Only if What needs a berth: Sheep').waitFor();
  assert.equal(await visitor.getByRole('button', { name: 'Next' }).count(), 0);
  await visitor.getByLabel(/^Your name/).fill('Tove Ek');
  await visitor.getByLabel(/^Where to answer/).fill('tove@ek.example');
  await visitor.getByLabel(/^Day of the sailing/).fill('2026-12-05');
  await visitor.getByLabel('Sailing (required)', { exact: true }).selectOption({ index: 1 });
  await visitor.getByLabel('Sheep', { exact: true }).check();
  await visitor.getByLabel(/^Code of the quay/).fill('1234');
  await visitor.getByLabel('You may keep this').check();
  await visitor.getByRole('button', { name: 'Ask for the berth' }).click();
  await visitor.getByText('One field needs another look.').waitFor();
  assert.equal(await sheep.getAttribute('aria-invalid'), 'true');
  assert.equal(await visitor.getByLabel(/^Code of the quay/).inputValue(), '1234');
  assert.ok(await visitor.getByLabel('Sheep', { exact: true }).isChecked());
  await sheep.fill('7');
  await visitor.getByRole('button', { name: 'Ask for the berth' }).click();
  await visitor.getByText('See you at the steps.').waitFor();
  const kept = (await entered()).find((e) => e['Your name'] === 'Tove Ek');
  assert.equal(kept['How many sheep'], '7');
});

test('the page that asks again is accessible, and a step with a problem is the one that is open', async () => {
  const visitor = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await visitor.goto(address);
  await visitor.evaluate(() => {
    const form = document.querySelector('form[action^="/_forms/"]');
    form.noValidate = true;
    form.querySelector('[name="Code of the quay"]').value = 'x';
    form.submit();
  });
  await visitor.getByText(/fields need another look/).waitFor();
  await visitor.getByText('1 / 2').waitFor();
  assert.deepEqual(await findings(visitor), []);
  assert.deepEqual(
    visitor.wrong.filter((w) => !/422/.test(w)),
    [],
  );
});

after(() => assert.deepEqual(page.wrong, []));
