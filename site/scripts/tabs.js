// Tabs: one panel shown at a time; arrow keys, Home and End go from tab to tab
// (WAI-ARIA Authoring Practices, tabs with automatic activation).
for (const list of document.querySelectorAll('[role="tablist"]')) {
  const tabs = [...list.querySelectorAll('[role="tab"]')];
  const choose = (chosen) => {
    for (const tab of tabs) {
      tab.setAttribute('aria-selected', String(tab === chosen));
      tab.tabIndex = tab === chosen ? 0 : -1;
      document.getElementById(tab.getAttribute('aria-controls')).hidden = tab !== chosen;
    }
  };
  list.addEventListener('click', (e) => {
    const tab = e.target.closest('[role="tab"]');
    if (tab) choose(tab);
  });
  list.addEventListener('keydown', (e) => {
    const at = tabs.indexOf(document.activeElement);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: tabs.length - 1 }[e.key];
    if (at < 0 || to === undefined) return;
    e.preventDefault();
    const next = tabs[(to + tabs.length) % tabs.length];
    choose(next);
    next.focus();
  });
}
