// Keys: stations, parts, the next open thing; arrows that move a choice; and figures that
// calipers type where no field is chosen, which are no keys at all.
const typing = (el) => el && ["INPUT", "TEXTAREA", "SELECT"].includes(el.tagName);
const figure = /^[0-9.,/-]$/;
const single = () => localStorage.getItem("corvek:keys") !== "off";
const pause = 300; // ms after which one digit alone is a key

// Loose figures were typed with no field chosen. They are shown and offered.
Alpine.store("loose", {
  figures: JSON.parse(sessionStorage.getItem("corvek:loose") || "[]"),
  keep(figures) {
    this.figures = figures;
    sessionStorage.setItem("corvek:loose", JSON.stringify(figures));
  },
});

Alpine.data("loose", () => ({
  get figures() { return this.$store.loose.figures; },
  // place is the first empty field for a figure.
  place() {
    const all = [...document.querySelectorAll('main input[data-kind="quantity"][data-field]:not([readonly])')];
    return all.find((x) => x.value === "" && x.checkVisibility());
  },
  put() {
    for (const text of this.figures.splice(0)) {
      const el = this.place();
      if (!el) {
        this.figures.push(text);
        continue;
      }
      el.focus();
      el.value = text;
      el.dispatchEvent(new Event("input", { bubbles: true }));
      el.blur();
    }
    this.$store.loose.keep(this.figures);
  },
  drop() {
    this.$store.loose.keep([]);
  },
}));

Alpine.data("keys", () => ({
  burst: "", // figures typed one upon the other
  later: 0,
  pressed(e) {
    if (e.isComposing || document.querySelector("dialog[open]")) return;
    const el = document.activeElement;
    if (typing(el)) return e.key === "Escape" && el.blur();
    if ((e.ctrlKey || e.metaKey) && e.key === "z") return this.undo(e);
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (this.inBurst(e) || this.inGroup(e, el) || this.onLeaf(e, el)) return;
    this.onPage(e);
  },
  // inBurst takes digits that follow each other as a figure and not as keys. The Enter
  // behind them presses nothing.
  inBurst(e) {
    const begun = this.burst !== "";
    if (figure.test(e.key) && (begun || e.key !== "/")) {
      e.preventDefault();
      this.burst += e.key;
      clearTimeout(this.later);
      this.later = setTimeout(() => this.rested(), pause);
      return true;
    }
    if (!begun) return false;
    clearTimeout(this.later);
    if (["Enter", "Tab"].includes(e.key)) e.preventDefault();
    this.offer();
    return true;
  },
  rested() {
    const key = this.burst;
    if (!/^[1-9]$/.test(key)) return this.offer();
    this.burst = "";
    if (single()) this.follow('[data-station="' + key + '"]');
  },
  offer() {
    if (/\d/.test(this.burst)) this.$store.loose.keep([...this.$store.loose.figures, this.burst]);
    this.burst = "";
  },
  follow(query, e) {
    const a = document.querySelector(query);
    if (!a) return;
    if (e) e.preventDefault();
    location.href = a.getAttribute("href");
  },
  // inGroup moves an arrow from one choice to the next one of its group.
  inGroup(e, el) {
    const step = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key];
    const group = step && el && el.closest('[role="group"], [role="tablist"]');
    if (!group || !el.matches("button, a")) return false;
    const all = [...group.querySelectorAll("button:not([disabled]), a")];
    e.preventDefault();
    all[(all.indexOf(el) + step + all.length) % all.length].focus();
    return true;
  },
  // onLeaf says by a letter how a feeler leaf goes.
  onLeaf(e, el) {
    const leaf = el && el.closest(".leaf");
    const word = leaf && { g: "goes", d: "drags", s: "stops" }[e.key];
    if (!word) return false;
    e.preventDefault();
    document.querySelector(`[id="says-${leaf.id}"] [data-says="${word}"]`).click();
    return true;
  },
  onPage(e) {
    if (e.key === "ArrowLeft") return this.follow("[data-prev]", e);
    if (e.key === "ArrowRight") return this.follow("[data-succ]", e);
    if (!single()) return;
    if (e.key === "/") this.find(e);
    else if (e.key === "n") this.follow("[data-next-stop]", e);
    else if (e.key === "?") this.$dispatch("help");
    else if (e.key === "u") document.querySelector("[data-units][aria-pressed=false]")?.click();
  },
  // find puts the caret into the page's own search, else into that of the board.
  find(e) {
    e.preventDefault();
    const field = document.querySelector("#find, [data-find-here]");
    if (!field) return (location.href = "/jobs#find");
    field.focus();
    field.select();
  },
  undo(e) {
    e.preventDefault();
    document.querySelector("#undo button")?.click();
  },
}));
