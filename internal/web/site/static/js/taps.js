// Taps: a button that carries data-set writes the state that data-value names. What is
// meant is what the button said when it was touched.
Alpine.data("taps", () => ({
  down: 0, // when the finger came down
  last: { set: "", at: 0 }, // the tap before

  touched() {
    this.down = performance.now();
  },

  tap(e) {
    const button = e.target.closest("[data-set]");
    const page = Alpine.store("page");
    page.acted(e.target);
    const drawer = e.target.closest("summary")?.parentElement;
    if (drawer) drawer.byHand = !drawer.open; // it stays as the reader left it
    if (!button || button.disabled || button.classList.contains("is-busy")) return;
    e.preventDefault();
    const finger = e.detail > 0; // a key gives none
    if (finger && !page.seen(this.down)) return;
    const { last } = this;
    this.last = { set: button.dataset.set, at: performance.now() };
    // The second half of a double tap would take the first half back.
    const twice = button.ariaPressed !== null || button.closest("[data-control]");
    if (twice && this.last.set === last.set && this.last.at - last.at < page.grace) return;
    this.write(button, { ...button.dataset });
  },
  // key presses what is drawn as it presses a button, and what is held down once.
  key(e) {
    if (e.repeat && e.key === "Enter") return e.preventDefault();
    if (!e.target.matches("g[role=button]") || !["Enter", " "].includes(e.key)) return;
    e.preventDefault();
    e.target.dispatchEvent(new MouseEvent("click", { bubbles: true }));
  },

  async write(button, want) {
    button.classList.add("is-busy");
    try {
      const also = want.set2 && { field2: want.set2, value2: want.value2, base2: want.base2 || "" };
      await Alpine.store("sent").write({
        field: want.set,
        value: want.value,
        base: want.base || "",
        go: want.go,
        also,
      });
    } finally {
      button.classList.remove("is-busy");
    }
  },
}));
