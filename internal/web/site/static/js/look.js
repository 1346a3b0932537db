// Look: on a unit of practice what is touched is looked at, and not written, while looking is on.
Alpine.store("looking", {
  on: sessionStorage.getItem("corvek-looking") !== "no",
  turn() {
    this.on = !this.on;
    sessionStorage.setItem("corvek-looking", this.on ? "yes" : "no");
  },
});

Alpine.data("looker", () => ({
  get on() {
    return Alpine.store("looking").on;
  },
  turn() {
    Alpine.store("looking").turn();
  },
}));

Alpine.data("look", () => ({
  shown: false,
  value: "", // as it would be written down
  aloud: "", // what the eye sees, in words
  field: "",
  base: "",
  acts: new WeakSet(), // buttons that were touched for what they do

  init() {
    document.addEventListener("click", (e) => this.touched(e), true);
    document.addEventListener("keydown", (e) => this.key(e), true);
  },
  // of is what can be looked at where something was touched.
  of(target) {
    const el = target.closest?.("#page main [data-set], #page main [data-field]");
    return el && !el.disabled ? el : null;
  },
  touched(e) {
    const el = this.of(e.target);
    if (!Alpine.store("looking").on || !el || this.acts.has(el)) return;
    if (el.dataset.set) {
      e.preventDefault();
      e.stopPropagation();
    } else if (el !== document.activeElement && e.detail === 0) return; // a label's click comes again
    this.look(el);
  },
  // key looks with Ctrl-Enter, and once more writes down what was seen.
  key(e) {
    if (e.key === "Escape") return this.close();
    if (e.key !== "Enter" || !e.ctrlKey) return;
    const el = this.of(e.target);
    if (!el) return;
    e.preventDefault();
    e.stopPropagation();
    const again = this.shown && this.value && this.field === (el.dataset.set || el.dataset.field);
    if (again) this.write();
    else this.look(el);
  },
  async look(el) {
    const field = el.dataset.set || el.dataset.field;
    const sent = Alpine.store("sent");
    const page = Alpine.store("page");
    let answer;
    try {
      const url = "/jobs/" + document.body.dataset.tag + "/look";
      answer = await sent.inLine(() => sent.post(url, { field }, page.here()));
    } catch {
      return sent.say("the shop's server does not answer; look again", "wait");
    }
    this.field = "";
    if (!answer.ok) return this.show({ card: "", value: "", aloud: "", says: answer.error.text });
    if (answer.json.act) return this.act(el);
    this.field = field;
    this.base = el.dataset.base || "";
    this.show(answer.json);
    await page.take(answer.json.page);
  },
  // act presses what is there to be done, and not to be looked at.
  act(el) {
    if (!el.dataset.set) return;
    this.acts.add(el);
    el.click();
    this.acts.delete(el);
  },
  show({ card, value, aloud, says }) {
    if (card) this.$refs.card.innerHTML = card;
    else this.$refs.card.textContent = says;
    this.value = value;
    this.aloud = aloud;
    this.shown = true;
  },
  tell() {
    const p = document.createElement("p");
    p.className = "prac-help";
    p.textContent = "With help: " + this.aloud;
    this.$refs.card.append(p);
    this.aloud = "";
  },
  async write() {
    const { field, value, base } = this;
    this.close();
    await Alpine.store("sent").write({ field, value, base });
  },
  close() {
    this.shown = false;
  },
}));
