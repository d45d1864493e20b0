// The small states that Alpine keeps. Alpine starts by itself once this is defined.
document.addEventListener('alpine:init', () => {
  window.Alpine.data('menu', () => ({
    open: false,
    toggle() {
      this.open = !this.open;
    },
    close() {
      this.open = false;
    },
  }));
  window.Alpine.data('filter', () => ({
    query: '',
    found(text) {
      return this.query
        .toLowerCase()
        .split(/\s+/)
        .every((w) => text.toLowerCase().includes(w));
    },
    get matches() {
      return this.found(this.$el.dataset.find);
    },
    get some() {
      return [...this.$el.querySelectorAll('[data-find]')].some((e) => this.found(e.dataset.find));
    },
    get none() {
      return [...this.$root.querySelectorAll('[data-find]')].every((e) => !this.found(e.dataset.find));
    },
  }));
});
