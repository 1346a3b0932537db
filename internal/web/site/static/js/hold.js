// Hold: how long a step of the test has still to be held. What is kept is the moment on
// the server; this only shows it.
Alpine.data("hold", () => ({
  now: Date.now(),
  timer: 0,
  init() {
    this.timer = setInterval(() => (this.now = Date.now()), 500);
  },
  destroy() { clearInterval(this.timer); },
  get left() { return Math.ceil((Date.parse(this.$root.dataset.until) - this.now) / 1000); },
  get ready() { return this.left <= 0; },
  get words() {
    const [m, s] = [Math.floor(this.left / 60), String(this.left % 60).padStart(2, "0")];
    return this.ready ? "held long enough" : `holds: ${m}:${s} left`;
  },
}));
