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
  asked: null, // in a form, what asked for it
  acts: new WeakSet(), // buttons that were touched for what they do

  init() {
    document.addEventListener("click", (e) => this.touched(e), true);
    document.addEventListener("keydown", (e) => this.key(e), true);
  },
  // of is what can be looked at where something was touched.
  of(target) {
    const el = target.closest?.("#page main :is([data-set], [data-field], [data-look])");
    return el && !el.disabled ? el : null;
  },
  touched(e) {
    const el = this.of(e.target);
    if (!Alpine.store("looking").on || !el || this.acts.has(el)) return;
    if (el.dataset.set || el.matches("fieldset")) {
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
    const again = this.shown && this.value && this.field === this.address(el);
    if (again) this.write();
    else this.look(el);
  },
  address(el) {
    return el.dataset.look || el.dataset.set || el.dataset.field;
  },
  async look(el) {
    const field = this.address(el);
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
    this.asked = el.dataset.look ? el : null;
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
    const { field, value, base, asked } = this;
    this.close();
    if (asked) return this.answer(asked, value);
    await Alpine.store("sent").write({ field, value, base });
  },
  // answer puts what was seen into a form that asks for it.
  answer(asked, value) {
    const pick = asked.querySelector(`input[type=radio][value="${CSS.escape(value)}"]`);
    if (pick) pick.checked = true;
    if (pick || !asked.matches("input")) return;
    asked.value = value;
    asked.dispatchEvent(new Event("input", { bubbles: true }));
  },
  close() {
    this.shown = false;
  },
}));
