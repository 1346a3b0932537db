// Pad: digits, units and letters for a hand that holds no keyboard. It comes when a field
// is touched by finger or pen, and takes its own taps: nothing below gets one.
const rows = (...list) => list.map((row) => (Array.isArray(row) ? row : [...row]));
const layouts = {
  digits: rows("789⌫", "456/", "123-", ["0", ".", "␣", "abc"]),
  letters: rows("1234567890", "qwertyuiop", "asdfghjkl'", "zxcvbnm,.", ["123", "⇧", "␣", "-", "⌫"]),
};
const last = ["✓", "→", "⌨"]; // done; save and go on; no pad, the machine's own keys

Alpine.data("pad", () => ({
  open: false,
  layout: "digits",
  units: [],
  capital: false,
  up: false,
  aside: false,
  finger: false,
  field: null,

  get keys() {
    const list = [...layouts[this.layout]];
    if (this.layout === "digits" && this.units.length) list.push(this.units);
    return [...list, last].map((keys, i) => ({ id: this.layout + i, keys }));
  },

  get place() {
    return { up: this.up, "to-left": this.aside, letters: this.layout === "letters", digits: this.layout === "digits" };
  },
  touched(e) {
    this.finger = e.pointerType === "touch" || e.pointerType === "pen";
    const el = e.target.closest("input, textarea");
    if (el && this.finger && this.wanted(el)) el.inputMode = "none"; // else two pads come
    if (!e.target.closest("#pad") && !this.wanted(el)) this.open = false;
    if (el && el === document.activeElement) this.reached(e); // no focus comes to tell
  },
  reached(e) {
    if (e.target.closest("#pad")) return;
    if (!this.wanted(e.target)) this.open = false;
    else if (this.finger) this.show(e.target);
    this.finger = false;
  },
  // left closes it when no other field comes after the one that was left.
  left(e) {
    if (!e.relatedTarget) this.open = false;
  },
  // typedOn closes it when real keys are at hand.
  typedOn(e) {
    if (e.isTrusted && e.key.length === 1) this.open = false;
  },
  wanted(el) {
    if (!el || !el.matches("input, textarea") || el.readOnly || localStorage.getItem("corvek:pad") === "off")
      return false;
    if (["file", "checkbox", "radio"].includes(el.type)) return false;
    return el.dataset.field !== undefined || el.dataset.pad !== undefined;
  },
  show(el) {
    const text = el.dataset.kind === "text" || el.tagName === "TEXTAREA";
    const at = el.getBoundingClientRect();
    this.field = el;
    this.layout = text ? "letters" : "digits";
    this.units = (el.dataset.units || "").split("|").filter(Boolean);
    this.up = at.top > 380; // as high as the pad is
    this.aside = at.left > innerWidth / 2;
    this.open = true;
    this.$nextTick(() => this.clear(el));
    // What the next key replaces is selected, as a keyboard's Tab does it.
    if (el.dataset.field && el.tagName === "INPUT") el.select();
  },
  // clear brings the field out from under the pad.
  clear(el) {
    const [a, b] = [el.getBoundingClientRect(), this.$root.getBoundingClientRect()];
    const over = a.right > b.left && a.left < b.right && a.bottom > b.top && a.top < b.bottom;
    if (over) el.scrollIntoView({ block: this.up ? "end" : "start" });
  },
  press(k) {
    const el = this.field;
    if (k === "abc" || k === "123") this.layout = k === "abc" ? "letters" : "digits";
    else if (k === "⇧") this.capital = !this.capital;
    else if (k === "✓") this.done(el);
    else if (k === "⌨") this.off(el);
    else if (k === "→") this.goOn(el);
    else this.write(el, k);
  },
  done(el) {
    this.open = false;
    el.blur();
  },
  off(el) {
    localStorage.setItem("corvek:pad", "off");
    this.open = false;
    el.inputMode = "";
    el.focus();
  },
  goOn(el) {
    this.finger = true;
    el.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }));
    if (document.activeElement === el || document.activeElement === document.body) this.done(el);
  },
  write(el, k) {
    let text = k === "␣" ? " " : k;
    if (this.capital && text.length === 1) text = text.toUpperCase();
    this.capital = false;
    if (document.activeElement !== el) el.focus();
    const [a, b] = [el.selectionStart, el.selectionEnd];
    if (k === "⌫") el.setRangeText("", a === b ? Math.max(0, a - 1) : a, b, "end");
    else if (this.units.includes(k)) el.value = el.value.replace(/[^\d.,/\- ].*$/, "").trimEnd() + " " + k;
    else el.setRangeText(text, a, b, "end");
    el.dispatchEvent(new Event("input", { bubbles: true }));
  },
}));
