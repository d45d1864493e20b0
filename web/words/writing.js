// Words as ProseMirror holds them: what they can be, how they are read from the page and from
// the clipboard, and how they are written for the server. core/edit.ParseWords reads the same.
import { newTab } from '../controls/link.js';
import * as pm from '../vendor/prosemirror.js';

/** How much text is taken from the clipboard at once, in characters. */
export const mostPasted = 200_000;

/** A node that keeps the class which its element has on the page. */
function block(content, tag, more = {}) {
  return {
    content,
    group: 'block',
    attrs: { class: { default: null } },
    defining: true,
    parseDOM: [{ tag, getAttrs: (e) => ({ class: e.getAttribute('class') }) }],
    toDOM: (n) => [tag, n.attrs.class ? { class: n.attrs.class } : {}, 0],
    ...more,
  };
}

/** What a pasted element's style says; the browser applies none of it (see pasted). */
const says = (e, pattern) => pattern.test(e.dataset.style ?? '');

/** Takes a mark from what an element looks like, beside what else it is. */
const looks = (pattern) => ({ tag: '[data-style]', consuming: false, getAttrs: (e) => says(e, pattern) && null });

/** A mark with a number, kept in an attribute of a span: the size of words, or what is between their letters. */
const share = (name, style) => ({
  attrs: { n: {} },
  excludes: name,
  parseDOM: [{ tag: `span[data-${name}]`, consuming: false, getAttrs: (e) => ({ n: Number(e.dataset[name]) }) }],
  toDOM: (m) => ['span', { [`data-${name}`]: String(m.attrs.n), style: style(m.attrs.n) }, 0],
});

const marks = {
  link: {
    attrs: { href: {} },
    inclusive: false,
    parseDOM: [
      { tag: 'a[href]', getAttrs: (e) => ({ href: e.getAttribute('href') + (e.target === '_blank' ? newTab : '') }) },
    ],
    toDOM: (m) => [
      'a',
      { href: m.attrs.href.replace(newTab, ''), ...(m.attrs.href.endsWith(newTab) && { target: '_blank' }) },
      0,
    ],
  },
  bold: {
    parseDOM: [
      { tag: 'strong' },
      { tag: 'b', getAttrs: (e) => !says(e, /font-weight:\s*normal/) && null }, // some put a whole copy into a b that isn't bold
      looks(/font-weight:\s*(bold(er)?|[6-9]\d{2})/),
    ],
    toDOM: () => ['strong', 0],
  },
  italic: {
    parseDOM: [
      { tag: 'em' },
      { tag: 'i', getAttrs: (e) => !says(e, /font-style:\s*normal/) && null },
      looks(/font-style:\s*(italic|oblique)/),
    ],
    toDOM: () => ['em', 0],
  },
  underline: { parseDOM: [{ tag: 'u' }], toDOM: () => ['u', 0] },
  strike: {
    parseDOM: [{ tag: 's' }, { tag: 'del' }, { tag: 'strike' }, looks(/text-decoration[^;]*line-through/)],
    toDOM: () => ['s', 0],
  },
  small: { parseDOM: [{ tag: 'small' }], toDOM: () => ['small', 0] },
  super: { parseDOM: [{ tag: 'sup' }, looks(/vertical-align:\s*super/)], toDOM: () => ['sup', 0] },
  code: { parseDOM: [{ tag: 'code' }, { tag: 'tt' }], toDOM: () => ['code', 0] },
  size: share('size', (n) => `font-size:${n / 100}em`),
  tracking: share('tracking', (n) => `letter-spacing:${n / 100}em`),
  // What another page says of its languages isn't taken along (see pasted).
  language: {
    attrs: { tag: {} },
    excludes: 'language',
    parseDOM: [{ tag: 'span[lang]', consuming: false, getAttrs: (e) => ({ tag: e.lang }) }],
    toDOM: (m) => ['span', { lang: m.attrs.tag }, 0],
  },
  colour: {
    attrs: { token: {}, value: { default: null } },
    parseDOM: [
      {
        tag: 'span[data-colour]',
        consuming: false,
        getAttrs: (e) => ({
          token: e.dataset.colour,
          value: e.style.color || /color:\s*([^;]+)/.exec(e.dataset.style ?? '')?.[1] || null,
        }),
      },
    ],
    toDOM: (m) => [
      'span',
      { 'data-colour': m.attrs.token, ...(m.attrs.value && { style: `color:${m.attrs.value}` }) },
      0,
    ],
  },
};

const common = {
  text: { group: 'inline' },
  break: {
    inline: true,
    group: 'inline',
    selectable: false,
    parseDOM: [{ tag: 'br' }],
    toDOM: () => ['br'],
    leafText: () => '\n',
  },
};

const item = {
  content: 'paragraph (bullets | numbers)*',
  attrs: { class: { default: null } },
  defining: true,
  parseDOM: [{ tag: 'li', getAttrs: (e) => ({ class: e.getAttribute('class') }) }],
  toDOM: (n) => ['li', n.attrs.class ? { class: n.attrs.class } : {}, 0],
};

/** What words can be: one line, the items of a list, or all that a text holds. */
const schemas = {
  line: new pm.Schema({ nodes: { doc: { content: 'inline*' }, ...common }, marks }),
  list: new pm.Schema({
    nodes: {
      doc: { content: 'item+' },
      item: { ...item, content: 'inline*' },
      ...common,
    },
    marks,
  }),
  text: new pm.Schema({
    nodes: {
      doc: { content: 'block+' },
      paragraph: block('inline*', 'p'),
      heading: {
        ...block('inline*', 'h2'),
        attrs: { class: { default: null }, level: { default: 2 } },
        parseDOM: [1, 2, 3, 4, 5, 6].map((n) => ({
          tag: `h${n}`,
          getAttrs: (e) => ({ class: e.getAttribute('class'), level: Math.min(Math.max(n, 2), 4) }),
        })),
        toDOM: (n) => [`h${n.attrs.level}`, n.attrs.class ? { class: n.attrs.class } : {}, 0],
      },
      quote: block('paragraph+', 'blockquote'),
      bullets: block('item+', 'ul'),
      numbers: block('item+', 'ol'),
      item,
      // The picture that the words go round stays where it is.
      picture: {
        group: 'block',
        atom: true,
        selectable: false,
        attrs: { html: {} },
        parseDOM: [
          { tag: 'img[class]', getAttrs: (e) => (e.parentElement?.dataset.block ? { html: e.outerHTML } : false) },
        ],
        toDOM: (n) => {
          const t = document.createElement('template');
          t.innerHTML = n.attrs.html;
          return t.content.firstChild;
        },
      },
      ...common,
    },
    marks,
  }),
};

/** The schema for what an element holds. */
export const schemaOf = (element, line) =>
  line ? schemas.line : element.matches('ul, ol') ? schemas.list : schemas.text;

/** Words as an element has them. */
export const read = (schema, element) => pm.DOMParser.fromSchema(schema).parse(element);

/** Words as HTML for the server, with no more than what they say and what that is. */
export function html(doc) {
  const holder = document.createElement('div');
  holder.append(pm.DOMSerializer.fromSchema(doc.type.schema).serializeFragment(doc.content));
  for (const e of holder.querySelectorAll('[class], [style]')) {
    e.removeAttribute('class');
    e.removeAttribute('style');
  }
  for (const img of holder.querySelectorAll('img')) img.remove();
  return holder.innerHTML;
}

/** What a mark is typed as, such as **bold**. */
function typed(pattern, mark, attrs = (_match) => null) {
  return new pm.InputRule(pattern, (state, match, start, end) => {
    const [whole, before, words] = match;
    const from = start + before.length;
    const tr = state.tr;
    tr.delete(from, end).insert(
      from,
      state.schema.text(words, [...(tr.storedMarks ?? state.selection.$from.marks()), mark.create(attrs(match))]),
    );
    return whole ? tr.removeStoredMark(mark) : null;
  });
}

/** Quotes and dashes of a language as they are typed; the first pair are double ones, the second single. */
const quotes = {
  de: ['„', '“', '‚', '‘'],
  fr: ['«\u202f', '\u202f»', '‹\u202f', '\u202f›'],
  it: ['«', '»', '“', '”'],
  es: ['«', '»', '“', '”'],
  sv: ['”', '”', '’', '’'],
  nl: ['“', '”', '‘', '’'],
  en: ['“', '”', '‘', '’'],
};

export function typographic(language) {
  const [open, close, single, singleClose] = quotes[(language || 'en').slice(0, 2)] ?? quotes.en;
  const at = (pattern, to) => new pm.InputRule(pattern, to);
  return [
    at(/(^|[\s([{–—])"$/, (s, [, before], from, to) => s.tr.insertText(before + open, from, to)),
    at(/"$/, close),
    at(/(^|[\s([{–—])'$/, (s, [, before], from, to) => s.tr.insertText(before + single, from, to)),
    at(/'$/, singleClose),
    at(/(\s)--?(\s)$/, (s, [, a, b], from, to) => s.tr.insertText(`${a}–${b}`, from, to)),
    at(/\.\.\.$/, '…'),
  ];
}

/** Markdown as it is typed. */
function rules(schema, more) {
  const { marks: m, nodes: n } = schema;
  const all = [
    typed(/(^|[^*])\*\*([^*\s](?:[^*]*[^*\s])?)\*\*$/, m.bold),
    typed(/(^|[^*])\*([^*\s](?:[^*]*[^*\s])?)\*$/, m.italic),
    typed(/(^|\s)_([^_\s](?:[^_]*[^_\s])?)_$/, m.italic),
    typed(/(^|[^`])`([^`]+)`$/, m.code),
    typed(/(^|[^~])~~([^~]+)~~$/, m.strike),
    typed(/(^|[^!])\[([^\]]+)\]\((\S+)\)$/, m.link, (match) => ({ href: match[3] })),
  ];
  if (n.heading) {
    all.push(
      pm.textblockTypeInputRule(/^(#{1,4})\s$/, n.heading, (match) => ({ level: Math.max(match[1].length, 2) })),
      pm.wrappingInputRule(/^\s*([-*])\s$/, n.bullets),
      pm.wrappingInputRule(/^1[.)]\s$/, n.numbers),
      pm.wrappingInputRule(/^>\s$/, n.quote),
    );
  }
  return pm.inputRules({ rules: [...more, ...all] });
}

/** Goes one deeper in a list, which has two levels. */
const sink = (item) => (state, dispatch) => {
  const { $from } = state.selection;
  let lists = 0;
  for (let d = $from.depth; d > 0; d--) lists += $from.node(d).type === item ? 1 : 0;
  return lists >= 1 && lists < 2 ? pm.sinkListItem(item)(state, dispatch) : lists > 0;
};

const lineBreak = (schema) => (state, dispatch) => {
  dispatch?.(state.tr.replaceSelectionWith(schema.nodes.break.create()).scrollIntoView());
  return true;
};

function keys(schema, on) {
  const { marks: m, nodes: n } = schema;
  const map = {
    'Mod-z': pm.undo,
    'Mod-y': pm.redo,
    'Shift-Mod-z': pm.redo,
    'Shift-Enter': lineBreak(schema),
    Escape: () => {
      on.leave();
      return true;
    },
    Tab: () => {
      on.next(1);
      return true;
    },
    'Shift-Tab': () => {
      on.next(-1);
      return true;
    },
    'Mod-b': (...a) => (on.bold() ? true : pm.toggleMark(m.bold)(...a)),
    'Mod-i': pm.toggleMark(m.italic),
    'Mod-u': pm.toggleMark(m.underline),
    'Mod-k': () => {
      on.link();
      return true;
    },
  };
  if (n.heading) {
    map.Enter = pm.splitListItem(n.item);
    map.Tab = pm.chainCommands(sink(n.item), map.Tab);
    map['Shift-Tab'] = pm.chainCommands(pm.liftListItem(n.item), map['Shift-Tab']);
    map['Mod-Alt-0'] = pm.setBlockType(n.paragraph);
    for (const level of [2, 3, 4]) map[`Mod-Alt-${level}`] = pm.setBlockType(n.heading, { level });
  } else if (n.item) {
    map.Enter = (state, dispatch) => {
      dispatch?.(state.tr.split(state.selection.$from.pos).scrollIntoView());
      return true;
    };
  } else {
    map.Enter = lineBreak(schema);
  }
  return [pm.keymap(map), pm.keymap(pm.baseKeymap)];
}

/** Pasted HTML, made ready to be read: its styles are read as words, since the page's policy lets none be applied, and nothing in it can run. */
export function pasted(text) {
  // A tag may lack its end, and an attribute the space before it.
  const inert = text
    .replaceAll(/<style\b[\s\S]*?(<\/style>|$)/gi, '')
    .replaceAll(/<[a-z][^>]*(>|$)/gi, (tag) =>
      tag.replaceAll(/([\s/"'`])style\s*=/gi, '$1data-style=').replaceAll(/([\s/"'`])on(\w+)\s*=/gi, '$1data-on='),
    );
  // Where links of other pages open, and in what languages they are, is theirs; what was copied here stays as it is.
  return listsOfWordProcessors(
    text.includes('data-pm-slice')
      ? inert
      : inert.replaceAll(/<(a|span)\s[^>]*>/gi, (tag) => tag.replaceAll(/\s(target|lang)\s*=/gi, ' data-$1=')),
  );
}

/** What word processors write for a list, as one: their items are paragraphs that say so in their style. */
function listsOfWordProcessors(text) {
  if (!/mso-list:/.test(text)) return text;
  const d = new DOMParser().parseFromString(text, 'text/html');
  let list = null;
  for (const p of [...d.querySelectorAll('p')]) {
    const item = /mso-list:\s*\S+\s+level(\d)/.exec(p.dataset.style ?? '');
    if (!item) {
      list = null;
      continue;
    }
    const mark = [...p.querySelectorAll('[data-style*="mso-list:Ignore"], [data-style*="mso-list: Ignore"]')];
    const numbered = /^\s*(\d+|[a-z])[.)]/i.test(mark[0]?.textContent ?? '');
    for (const e of mark) e.remove();
    const level = Math.min(Number(item[1]), 2);
    const tag = numbered ? 'ol' : 'ul';
    if (!list || (level === 1 && list.localName !== tag)) {
      list = d.createElement(tag);
      p.before(list);
    }
    let into = list;
    if (level === 2 && list.lastElementChild) {
      into = list.lastElementChild.querySelector('ul, ol') ?? list.lastElementChild.appendChild(d.createElement(tag));
    }
    const li = d.createElement('li');
    li.append(...p.childNodes);
    into.append(li);
    p.remove();
  }
  return d.body.innerHTML;
}

const markdown = new pm.MarkdownIt('commonmark', { html: false }).enable('strikethrough');

/** Pasted text as Markdown has it, where it reads as such; otherwise null. */
export function fromMarkdown(schema, text) {
  if (!schema.nodes.heading || !/^(#{1,4} |[-*] |\d+[.)] |> )|\*\*[^*]+\*\*|\[[^\]]+\]\([^)]+\)|`[^`]+`/m.test(text))
    return null;
  const d = new DOMParser().parseFromString(markdown.render(text), 'text/html');
  return pm.DOMParser.fromSchema(schema).parseSlice(d.body, { preserveWhitespace: false });
}

/**
 * Begins to write in an element.
 *
 * @param {HTMLElement} element
 * @param {object} on what is called: changed(), leave(), next(by) for another text, link(), bold() that says whether all is bold already, tooLong(n)
 * @param {{ line: boolean, language: string, typographic: boolean }} how
 */
export function edit(element, on, how) {
  const schema = schemaOf(element, how.line);
  const first = (selector) => element.querySelector(selector)?.getAttribute('class') ?? null;
  const usual = {
    paragraph: first(':scope > p'),
    item: first('li'),
    bullets: first('ul'),
    numbers: first('ol') ?? first('ul'),
    quote: first('blockquote'),
  };
  // New paragraphs look as the others do, until the server has written them.
  const dress = new pm.Plugin({
    appendTransaction(changes, _, state) {
      if (!changes.some((t) => t.docChanged)) return null;
      const tr = state.tr;
      state.doc.descendants((node, at, parent) => {
        if (
          node.type.name in usual &&
          node.attrs.class === null &&
          usual[node.type.name] &&
          !(node.type.name === 'paragraph' && parent.type.name === 'item')
        ) {
          tr.setNodeMarkup(at, null, { ...node.attrs, class: usual[node.type.name] });
        }
      });
      return tr.docChanged ? tr : null;
    },
  });
  const doc = read(schema, element);
  const state = pm.EditorState.create({
    doc,
    plugins: [
      rules(schema, how.typographic ? typographic(how.language) : []),
      ...keys(schema, on),
      pm.history(),
      dress,
    ],
  });
  const view = new pm.EditorView(
    { mount: element },
    {
      state,
      dispatchTransaction(tr) {
        view.updateState(view.state.apply(tr));
        on.changed();
      },
      transformPastedHTML: pasted,
      clipboardTextParser: (text, _, plain) => (plain ? null : fromMarkdown(schema, text)),
      handlePaste(_, e) {
        const n = e.clipboardData.getData('text/plain').length;
        if (n > mostPasted) {
          on.tooLong(n);
          return true;
        }
        return false;
      },
      handleKeyDown: (_, e) => {
        e.stopPropagation();
        return false;
      },
      attributes: { spellcheck: 'true' },
    },
  );
  return { view, schema, before: html(doc), html: () => html(view.state.doc), plain: () => view.state.doc.textContent };
}

/** Whether all that is selected has a mark. */
export function has(view, name) {
  const type = view.state.schema.marks[name];
  const { from, to, empty, $from } = view.state.selection;
  return empty
    ? Boolean(type.isInSet(view.state.storedMarks ?? $from.marks()))
    : view.state.doc.rangeHasMark(from, to, type);
}

/** The nearest block around the caret: its name, with a heading's level. */
export function around(view) {
  const { $from } = view.state.selection;
  for (let d = $from.depth; d > 0; d--) {
    const n = $from.node(d);
    if (n.type.name === 'heading') return `heading-${n.attrs.level}`;
    if (['quote', 'bullets', 'numbers'].includes(n.type.name)) return n.type.name;
  }
  return 'paragraph';
}

/** Does what a button of the bar says. */
export function act(view, what, attrs = null, stay = true) {
  const { marks: m, nodes: n } = view.state.schema;
  const run = (command) => command(view.state, view.dispatch, view);
  if (what === 'colour') {
    const { from, to } = view.state.selection;
    view.dispatch(view.state.tr.removeMark(from, to, m.colour).addMark(from, to, m.colour.create(attrs)));
  } else if (what === 'size' || what === 'tracking') {
    const { from, to } = view.state.selection;
    const usual = what === 'size' ? 100 : 0;
    const n = attrs.n ?? setAt(view, what, usual) + attrs.by;
    const [least, most] = what === 'size' ? [50, 300] : [-10, 100];
    const now = Math.min(Math.max(n, least), most);
    const tr = view.state.tr.removeMark(from, to, m[what]);
    view.dispatch(now === usual ? tr : tr.addMark(from, to, m[what].create({ n: now })));
  } else if (what === 'language') {
    const { from, to } = view.state.selection;
    const tr = view.state.tr.removeMark(from, to, m.language);
    view.dispatch(attrs.tag ? tr.addMark(from, to, m.language.create(attrs)) : tr);
  } else if (what === 'link') {
    const { from, to, empty, $from } = view.state.selection;
    let [a, b] = [from, to];
    if (empty) {
      // the link around the caret
      const mark = m.link.isInSet($from.marks());
      if (!mark) return;
      while (a > $from.start() && view.state.doc.rangeHasMark(a - 1, a, m.link)) a--;
      while (b < $from.end() && view.state.doc.rangeHasMark(b, b + 1, m.link)) b++;
    }
    const tr = view.state.tr.removeMark(a, b, m.link);
    view.dispatch(attrs.href ? tr.addMark(a, b, m.link.create(attrs)) : tr);
  } else if (what in m) {
    run(pm.toggleMark(m[what]));
  } else if (what === 'bullets' || what === 'numbers') {
    if (around(view) === what) run(pm.liftListItem(n.item));
    else run(pm.chainCommands(pm.wrapInList(n[what]), (s, d) => pm.liftListItem(n.item)(s, d)));
  } else if (what === 'quote') {
    run(around(view) === 'quote' ? pm.lift : pm.wrapIn(n.quote));
  } else if (what.startsWith('heading')) {
    run(
      around(view) === what ? pm.setBlockType(n.paragraph) : pm.setBlockType(n.heading, { level: Number(what.at(-1)) }),
    );
  }
  if (stay) view.focus();
}

/** The size of the words at the beginning of what is selected, in percent, or what is between their letters. */
export function setAt(view, what, usual) {
  const { from, to, $from } = view.state.selection;
  let n = null;
  view.state.doc.nodesBetween(from, Math.max(to, from), (node) => {
    if (node.isText) n ??= view.state.schema.marks[what].isInSet(node.marks)?.attrs.n ?? usual;
  });
  return n ?? view.state.schema.marks[what].isInSet($from.marks())?.attrs.n ?? usual;
}

/** The language of the words at the caret, or at the beginning of what is selected, where it isn't the page's, or ''. */
export function languageAt(view) {
  const { $from, $to } = view.state.selection;
  return view.state.schema.marks.language.isInSet($from.marksAcross($to) ?? $from.marks())?.attrs.tag ?? '';
}

/** The link around the caret or in what is selected, or ''. */
export function linkAt(view) {
  const type = view.state.schema.marks.link;
  const { from, to, $from, empty } = view.state.selection;
  let href = (type.isInSet($from.marks()) ?? type.isInSet(view.state.storedMarks ?? []))?.attrs.href ?? '';
  if (!empty)
    view.state.doc.nodesBetween(from, to, (n) => {
      href ||= type.isInSet(n.marks)?.attrs.href ?? '';
    });
  return href;
}

/** Writes text where the caret is, or in place of what is selected. */
export const type = (view, text) => view.dispatch(view.state.tr.insertText(text));

/** Selects all words. */
export const selectAll = (view) => view.dispatch(view.state.tr.setSelection(new pm.AllSelection(view.state.doc)));

/** Puts the caret at a point of the element's own window. */
export function caretAt(view, x, y) {
  const at = view.posAtCoords({ left: x, top: y });
  if (at) view.dispatch(view.state.tr.setSelection(pm.TextSelection.near(view.state.doc.resolve(at.pos))));
}
