// Planner: a bar of the plan is drawn to another row or another hour, or moved by the arrow keys. While it is drawn it
// is said where it would stand and what speaks against that; the server has the last word. Bars that are narrower
// than a finger are told apart in a list.
const finger = 44;

Alpine.data("planner", () => ({
  bar: null, // that is held
  from: [0, 0],
  moved: false,
  hint: "",
  against: false, // something speaks against where the bar is held
  at: {}, // where the hint stands
  near: [], // bars that a finger may have meant

  hold(e) {
    const bar = e.target.closest("[data-task]");
    if (!bar || e.button !== 0) return;
    this.bar = bar;
    this.from = [e.clientX, e.clientY];
    this.moved = false;
    this.near = [];
  },
  draw(e) {
    if (!this.bar) return;
    const [x, y] = [e.clientX - this.from[0], e.clientY - this.from[1]];
    if (!this.moved && Math.hypot(x, y) < 8) return;
    this.moved = true;
    this.bar.setAttribute("transform", `translate(${x} ${y})`);
    e.preventDefault();
    const to = this.target(e);
    const why = this.clash(to);
    this.hint = why || `${to.name}, ${to.when}`;
    this.against = why !== "";
    this.at = { left: `${Math.min(e.clientX + 16, innerWidth - 260)}px`, top: `${Math.max(8, e.clientY - 72)}px` };
  },
  let(e) {
    const bar = this.bar;
    if (!bar || !this.moved) return (this.bar = null);
    const to = this.target(e);
    this.bar = null;
    this.hint = "";
    this.send(bar, { x: to.x, row: to.row });
  },
  // target is where the bar that is held would stand.
  target(e) {
    const box = this.bar.querySelector("svg");
    const at = (name) => Number(box.getAttribute(name));
    const x = at("x") + Math.round(e.clientX - this.from[0]);
    const line = this.rowAt(at("y") + e.clientY - this.from[1]);
    const day = this.dayAt(x);
    const { row, name } = line.dataset;
    return { x, row, name, day, end: x + at("width"), when: this.timeAt(day, x) };
  },
  dayAt(x) {
    const days = [...this.$root.querySelectorAll("[data-day]")];
    const at = days.findLastIndex((d) => Number(d.getAttribute("x")) <= x);
    return days[Math.max(0, at)];
  },
  timeAt(day, x) {
    const { opens, shuts } = this.$root.querySelector("svg").dataset;
    const into = Math.max(0, x - Number(day.getAttribute("x"))) / Number(day.getAttribute("width"));
    const minute = Math.round((Number(opens) + into * (shuts - opens)) / 15) * 15;
    const two = (n) => String(n).padStart(2, "0");
    return `${day.dataset.day} ${two(Math.floor(minute / 60))}:${two(minute % 60)}`;
  },
  // clash says what speaks against a place, "" for nothing that is seen here.
  clash(to) {
    const { can, from, after } = this.bar.dataset;
    if (!can.split(" ").includes(to.row)) return `${to.name}: not for this`;
    if (to.day.dataset.shut !== undefined) return `${to.day.dataset.day}: nobody is there`;
    if (to.x < Number(from)) return after;
    const held = [...this.$root.querySelectorAll("[data-held]")].find((b) => {
      if (b.dataset.task === this.bar.dataset.task || b.dataset.in !== to.row) return false;
      const box = b.querySelector("svg");
      const x = Number(box.getAttribute("x"));
      return x < to.end && to.x < x + Number(box.getAttribute("width"));
    });
    return held ? held.dataset.held : "";
  },
  // rowAt is the row of the plan at a height, by the middle of a bar.
  rowAt(y) {
    const rows = [...this.$root.querySelectorAll("[data-row]")];
    const at = rows.findLastIndex((r) => Number(r.getAttribute("y1")) <= y + 19);
    return rows[Math.max(0, at)];
  },
  // open keeps the click that ends a drawing from opening the bar, and asks which one a finger meant.
  open(e) {
    if (this.moved) {
      this.moved = false;
      e.preventDefault();
      e.stopPropagation();
      return;
    }
    if (e.pointerType === "mouse" || !e.clientX || !e.target.closest("svg.plan")) return;
    const near = this.around(e.clientX, e.clientY);
    if (near.length < 2 && e.target.closest("a")) return;
    e.preventDefault();
    e.stopPropagation();
    if (near.length === 1) location.assign(near[0].href);
    this.near = near;
  },
  // around are the bars that a finger at a place may have meant: one that it is well within, else all near it.
  around(x, y) {
    const all = [];
    for (const a of this.$root.querySelectorAll("a.plan-bar")) {
      const b = a.getBoundingClientRect();
      const off = Math.max(b.left - x, x - b.right);
      if (y < b.top || y > b.bottom || off > finger / 2) continue;
      if (off < 0 && b.width >= finger) return [this.named(a)];
      all.push(this.named(a));
    }
    return all;
  },
  named: (a) => ({ href: a.getAttribute("href"), words: a.getAttribute("aria-label") }),
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
