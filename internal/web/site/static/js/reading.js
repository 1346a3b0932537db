// Reading: a field that saves by itself when it is left, if something was typed.
const page = () => Alpine.store("page");
const drafts = () => Alpine.store("drafts");
const sent = () => Alpine.store("sent");

// below is the cell under one, in a sheet of columns; nothing under the last.
function below(el) {
  const row = el.closest("[data-columns] tr");
  if (!row) return undefined;
  const at = [...row.children].indexOf(el.closest("td"));
  for (let r = row.nextElementSibling; r; r = r.nextElementSibling) {
    const to = r.children[at]?.querySelector("input[data-field]:not([readonly])");
    if (to) return to;
  }
  return undefined;
}

// block are the cells that a block of a spreadsheet goes into, from one cell to the right and down; undefined for a
// cell that is not there.
function block(el, lines) {
  const row = el.closest("tr");
  const at = [...row.children].indexOf(el.closest("td"));
  const rows = [...row.parentElement.children].slice([...row.parentElement.children].indexOf(row));
  return lines.flatMap((line, r) => line.map((figure, c) => {
    const to = rows[r]?.children[at + c]?.querySelector("input[data-field]:not([readonly])");
    return { to, figure };
  })).filter((x) => x.figure !== "");
}

// next is the field behind one that shows.
function next(el) {
  const under = below(el);
  if (under) return under;
  const fields = "main input[data-field]:not([readonly]), main textarea[data-field]:not([readonly])";
  const seen = { checkOpacity: false, contentVisibilityAuto: true };
  const all = [...document.querySelectorAll(fields)];
  return all.slice(all.indexOf(el) + 1).find((x) => x.checkVisibility(seen));
}

Alpine.data("reading", () => ({
  typed: false, // and not kept yet
  base: "", // what stood there before it
  onItsWay: null, // what was sent last

  get el() {
    return this.$root.matches("[data-field]") ? this.$root : this.$root.querySelector("[data-field]");
  },
  get wrong() { return !!sent().faults[this.$root.dataset.of]; },
  get look() { return { unsaved: this.typed, bad: this.wrong }; },
  init() {
    const d = drafts().get(this.el.dataset.field);
    if (!d || d.typed === undefined) return;
    if (d.value === this.el.dataset.base) return drafts().drop(this.el.dataset.field);
    this.el.value = d.value;
    this.base = d.base;
    this.typed = true;
    if (d.error) sent().faults[this.el.dataset.field] = d.error;
  },
  // type keeps what stood in the field when the hand began, whatever comes meanwhile.
  type() {
    const { field, base, unit } = this.el.dataset;
    if (!this.typed) this.base = base;
    this.typed = true;
    this.onItsWay = null;
    drafts().put(field, { field, value: this.el.value, base: this.base, unit, typed: true });
  },
  // leave sends what was typed. A field that is questioned takes the same figure again.
  leave(e) {
    const el = this.el;
    const value = el.value.trim();
    const instead = e && e.relatedTarget && e.relatedTarget.closest("[data-set]");
    // A tap on an answer of its own says it better; who comes to it by the Tab key has said nothing else.
    if (instead && instead.dataset.set === el.dataset.field && instead.matches(":active")) return this.forget();
    if (page().drawing || !this.typed || this.onItsWay === value) return;
    const { field, unit } = el.dataset;
    const { base } = this;
    if (value === base && el.dataset.questioned === undefined) return this.forget();
    this.onItsWay = value;
    page().acted(el);
    sent().write({ field, value, base, unit, typed: true });
  },
  forget() {
    const { field } = this.el.dataset;
    this.typed = false;
    drafts().drop(field);
    delete sent().faults[field];
  },
  // choose sends what was chosen of a list.
  choose() {
    const { field, base } = this.el.dataset;
    page().acted(this.el);
    sent().write({ field, value: this.el.value, base });
  },
  // kept shows what is stored: a bare figure comes back with its unit.
  kept(was, stored) {
    const el = this.el;
    el.dataset.base = stored;
    if (el.tagName === "SELECT" || el.value.trim() !== was) return;
    this.typed = false;
    this.onItsWay = null;
    el.value = stored;
  },
  // enter goes on to the next field, as calipers do; Shift gives a new line.
  enter(e) {
    if (e.shiftKey || e.target !== this.el || this.el.tagName === "SELECT") return;
    e.preventDefault();
    this.goOn();
  },
  goOn() {
    const to = next(this.el);
    if (!to) return this.el.blur();
    to.focus();
    to.select();
  },
  // step counts up and down from what stands in the field.
  step(by) {
    const el = this.el;
    el.value = String(Math.max(0, (parseInt(el.value || "0", 10) || 0) + by));
    this.type();
    this.leave();
  },
}));

// Rows of a spreadsheet that are pasted into a reading go on into the places behind it, of the same sheet alone.
document.addEventListener("paste", (e) => {
  const el = e.target;
  if (!(el instanceof HTMLInputElement) || !el.dataset.field || el.readOnly) return;
  const text = e.clipboardData?.getData("text") || "";
  const figures = text.split(/[\t\r\n]+/).map((x) => x.trim()).filter(Boolean);
  if (figures.length < 2) return;
  e.preventDefault();
  if (el.closest("[data-columns]")) {
    const rows = text.replace(/\r/g, "").replace(/\n+$/, "").split("\n");
    const lines = rows.map((x) => x.split("\t").map((y) => y.trim()));
    const cells = block(el, lines);
    const lost = cells.filter((x) => !x.to).length;
    if (lost) {
      sent().faults[el.dataset.field] =
        `${cells.length} figures were pasted and ${lost} of them have no cell here; none was put in`;
      return;
    }
    cells.forEach(({ to, figure }) => put(to, figure));
    return;
  }
  const sheet = el.dataset.field.replace(/[^/]*$/, "");
  const places = [...document.querySelectorAll(`main input[data-field^="${CSS.escape(sheet)}"]:not([readonly])`)]
    .filter((x) => x.dataset.field.lastIndexOf("/") === sheet.length - 1 && x.checkVisibility());
  const behind = places.slice(places.indexOf(el));
  if (figures.length > behind.length) {
    sent().faults[el.dataset.field] =
      `${figures.length} figures were pasted and ${behind.length} places are here; none was put in`;
    return;
  }
  figures.forEach((figure, i) => put(behind[i], figure));
});

// put types a figure into a field and leaves it.
function put(el, figure) {
  const field = Alpine.$data(el.closest("[x-data]"));
  el.value = figure;
  field.type();
  field.leave();
}
