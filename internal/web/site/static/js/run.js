// Run: the running list. When the row at work changes, the hand is put on what it asks first, so that the next
// Enter, of a key or of a foot switch, does the next part.
Alpine.data("run", () => ({
  at: "",

  init() {
    this.at = this.$root.dataset.at;
    window.addEventListener("laid", () => this.moved());
    this.first();
  },

  moved() {
    if (!this.$root.isConnected || this.at === this.$root.dataset.at) return;
    this.at = this.$root.dataset.at;
    this.first();
  },

  first() {
    const row = this.$root.querySelector(".run-row.on");
    if (!row) return;
    row.scrollIntoView({ block: "nearest" });
    const typing = document.activeElement && document.activeElement.closest("input, textarea, select");
    if (!typing || this.$root.contains(typing)) row.querySelector("[data-first]")?.focus({ preventScroll: true });
  },
}));
