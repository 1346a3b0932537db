// Bench: what belongs to the reader: measures, light or dark, help, and what others change
// on the job that shows.
const cookie = (name, value) => (document.cookie = `${name}=${value};path=/;max-age=31536000;samesite=lax`);

Alpine.data("bench", () => ({
  changes: null,
  newest: 0, // version of the job that was heard of

  init() {
    this.$nextTick(() => {
      Alpine.store("page").intoView();
      this.aim();
      const here = document.getElementById("page")?.dataset.here;
      if (here && document.body.dataset.tag) history.replaceState(null, "", here);
    });
    this.listen();
  },
  // aim puts the hand on what a link leads to, or on the first control in it. It waits for
  // the browser, which lets go of the focus where a link leads to no control.
  aim() {
    const at = location.hash && document.getElementById(decodeURIComponent(location.hash.slice(1)));
    const act = "input:not([type=hidden]), textarea, select, button";
    const shows = (x) => x.matches(act) && x.checkVisibility();
    if (at) setTimeout(() => [at, ...at.querySelectorAll(act)].find(shows)?.focus());
    history.replaceState(null, "", location.pathname + location.search);
  },
  // said is what was refused of a field, where it stands.
  said(el) {
    return this.$store.sent.faults[el.dataset.err] || "";
  },
  // listen hears what is written to the job elsewhere, while the page is looked at.
  listen() {
    const tag = document.body.dataset.tag;
    if (this.changes) this.changes.close();
    this.changes = null;
    const board = document.querySelector("[data-hears]");
    if (document.hidden || !(tag || board)) return;
    const words = (source) => {
      source.onmessage = (e) => (tag ? this.heard(e.data) : this.again());
      source.addEventListener("others", (e) => this.others(JSON.parse(e.data)));
    };
    // A job's line begins with its version; a board was not told what was written meanwhile.
    const stands = (broken) => broken && !tag && this.again();
    this.changes = Alpine.store("hears").line(tag ? this.line(tag) : board.dataset.hears, words, stands);
  },
  // line is where the page hears of its job, and says which of its pages it is.
  line(tag) {
    const at = location.pathname.split("/")[3] || "";
    const unit = new URLSearchParams(location.search).get("unit") || "";
    return `/jobs/${tag}/changes?at=${encodeURIComponent(at)}&unit=${encodeURIComponent(unit)}`;
  },
  // others says who else has the job before him.
  others(words) {
    const el = document.getElementById("others");
    if (!el) return;
    el.textContent = words;
    el.hidden = !words;
  },
  // again asks for a board anew when a job on it was written to, of many at once one time.
  again(wait = 300) {
    clearTimeout(this.later);
    const load = () => Alpine.store("page").load(location.pathname + location.search);
    this.later = setTimeout(() => load().then((came) => came || this.again(1000)), wait);
  },
  // heard asks for the page when nothing is under way and it is older than what was heard:
  // the answer to an act of this very page brings it by itself.
  // A page that did not come is asked for again.
  heard(version, wait = 100) {
    this.newest = Math.max(this.newest, Number(version));
    clearTimeout(this.later);
    this.later = setTimeout(() => {
      const page = Alpine.store("page");
      if (Alpine.store("sent").under) this.heard(version);
      else if (this.newest > page.version())
        page.load().then((came) => (came ? (this.newest = 0) : this.heard(version, 500)));
    }, wait);
  },
  seen() {
    this.listen();
    if (document.hidden) return;
    if (document.body.dataset.tag) this.heard(Infinity);
    else if (document.querySelector("[data-hears]")) this.again();
  },
  back() {
    if (location.hash) return this.aim();
    if (document.body.dataset.tag) Alpine.store("page").load(location.pathname + location.search);
  },
  measures(e) {
    for (const [what, unit] of Object.entries(e.target.dataset)) cookie("corvek_" + what, unit);
    Alpine.store("page").load();
  },
  // fill puts a ready answer into a field of its form.
  fill(e) {
    const button = e.target.closest("[data-fill]");
    const input = button && button.form.querySelector(`[name="${button.dataset.fill}"]`);
    if (!input) return;
    input.value = button.dataset.value;
    input.focus();
  },
  theme() {
    const root = document.documentElement;
    const system = matchMedia("(prefers-color-scheme: dark)").matches;
    const dark = root.dataset.theme ? root.dataset.theme === "dark" : system;
    root.dataset.theme = dark ? "light" : "dark";
    cookie("corvek_theme", root.dataset.theme);
  },
  // next lets a link to the change of person come back to where it was followed.
  next(e) {
    e.currentTarget.href = "/change?next=" + encodeURIComponent(location.pathname + location.search);
  },
}));

// Help: the keys, and what can be switched off.
Alpine.data("help", () => ({
  single: localStorage.getItem("corvek:keys") !== "off",
  pad: true,
  show() {
    this.pad = localStorage.getItem("corvek:pad") !== "off";
    if (!this.$root.open) this.$root.showModal();
  },
  keep() {
    localStorage.setItem("corvek:keys", this.single ? "on" : "off");
    localStorage.setItem("corvek:pad", this.pad ? "on" : "off");
  },
}));
