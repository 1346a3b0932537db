// Leaves: one feeler leaf is in the hand, the one to try next unless another is picked; how
// it goes is said below.
Alpine.data("leaves", () => ({
  leaf: "",
  next: "",
  init() {
    this.follow();
  },
  follow() {
    const box = this.$root;
    const next = (box.querySelector("[data-next]") || box.querySelector("[data-leaf]")).dataset.leaf;
    if (next !== this.next) this.leaf = next;
    this.next = next;
  },
  pick(el) {
    this.leaf = el.dataset.leaf;
  },
  at(el) {
    return el.dataset.leaf === this.leaf;
  },
}));
