// Planner: a bar of the plan is drawn to another row or another hour, or moved by the arrow keys. The server says
// where it may stand; this only tells where it was let go.
Alpine.data("planner", () => ({
  bar: null, // that is held
  from: [0, 0],
  moved: false,

  hold(e) {
    const bar = e.target.closest("[data-task]");
    if (!bar || e.button !== 0) return;
    this.bar = bar;
    this.from = [e.clientX, e.clientY];
    this.moved = false;
  },
  draw(e) {
    if (!this.bar) return;
    const [x, y] = [e.clientX - this.from[0], e.clientY - this.from[1]];
    if (!this.moved && Math.hypot(x, y) < 8) return;
    this.moved = true;
    this.bar.setAttribute("transform", `translate(${x} ${y})`);
    e.preventDefault();
  },
  let(e) {
    const bar = this.bar;
    this.bar = null;
    if (!bar || !this.moved) return;
    const [x, y] = [e.clientX - this.from[0], e.clientY - this.from[1]];
    const box = bar.querySelector("svg");
    const at = (name) => Number(box.getAttribute(name));
    this.send(bar, { x: at("x") + Math.round(x), row: this.rowAt(at("y") + y) });
  },
  // rowAt is the row of the plan at a height, by the middle of a bar.
  rowAt(y) {
    const rows = [...this.$root.querySelectorAll("[data-row]")];
    const at = rows.findLastIndex((r) => Number(r.getAttribute("y1")) <= y + 19);
    return rows[Math.max(0, at)].dataset.row;
  },
  // open keeps the click that ends a drawing from opening the bar.
  open(e) {
    if (!this.moved) return;
    this.moved = false;
    e.preventDefault();
    e.stopPropagation();
  },
  step(e) {
    const bar = e.target.closest("[data-task]");
    const way = { ArrowLeft: "earlier", ArrowRight: "later", ArrowUp: "up", ArrowDown: "down" }[e.key];
    if (!bar || !way) return;
    e.preventDefault();
    e.stopPropagation();
    this.send(bar, { step: way, row: bar.dataset.in });
  },
  send(bar, what) {
    const form = this.$root.querySelector("form");
    if (!form) return bar.removeAttribute("transform");
    form.elements.task.value = bar.dataset.task;
    for (const name of ["x", "row", "step"]) form.elements[name].value = what[name] ?? "";
    form.requestSubmit();
  },
}));
