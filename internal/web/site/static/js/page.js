// The page: what the server sends of it is laid over what shows, so that whoever types
// or taps there keeps his place. Elements are the same where their key is.
const key = (el) => (el.nodeType === 1 && (el.id || el.dataset.key || pairs.get(el))) || undefined;
const box = () => document.getElementById("page");
const fragment = (name) => document.querySelector(`[data-fragment="${name}"]`);
let pairs = new WeakMap();
let turn = 0;
let moving = false; // an act leads on to another part
let steady = null; // the list in which the last act was: { id, order }

// pair makes the boxes around a keyed element the same in the old and the new page:
// keys are looked for among siblings only.
function pair(from, to) {
  pairs = new WeakMap();
  const old = new Map();
  for (const el of from.querySelectorAll("[id], [data-key]")) old.set(key(el), el);
  let n = 0;
  for (const el of to.querySelectorAll("[id], [data-key]")) {
    let a = old.get(key(el));
    let b = el;
    while (a) {
      a = a.parentElement;
      b = b.parentElement;
      if (!a || !b || a === from || b === to || key(a) || key(b) || a.tagName !== b.tagName) break;
      const both = "pair-" + ++n;
      pairs.set(a, both);
      pairs.set(b, both);
    }
  }
}

// hold leaves the rows of the list in which the last act was where they are: none goes
// away under the finger, and what was answered stays struck, until the next act elsewhere.
function hold(to) {
  const now = steady && document.getElementById(steady);
  const next = now && to.querySelector("#" + CSS.escape(steady));
  if (!next) return false;
  const coming = new Map([...next.children].map((row) => [key(row), row]));
  const rows = [...now.children].map((row) => {
    const same = coming.get(key(row));
    coming.delete(key(row));
    // The answer to the act may still be on its way when another one comes.
    if (same && row.dataset.acted !== undefined) same.dataset.acted = "";
    return same || (row.dataset.acted === undefined ? row.cloneNode(true) : struck(row));
  });
  next.replaceChildren(...rows, ...coming.values());
  return true;
}

function struck(row) {
  const copy = row.cloneNode(true);
  copy.classList.add("answered");
  copy.removeAttribute("data-acted");
  for (const b of copy.querySelectorAll("button, input, select, textarea")) b.disabled = true;
  return copy;
}

const options = {
  key,
  updating(from, to, childrenOnly, skip) {
    if (from.nodeType !== 1) return;
    if (from.dataset.keep !== undefined || from.isEqualNode(to)) return skip();
    if (from.getAttribute("x-data") !== to.getAttribute("x-data")) {
      from.replaceWith(to.cloneNode(true)); // another component begins anew
      return skip();
    }
    if (from.tagName === "DETAILS" && !moving) to.open = from.byHand ?? (from.open || to.open);
  },
};

// values puts what the server drew into the fields in which nobody types: one that was
// typed in does not follow its attribute any more.
function values() {
  for (const el of document.querySelectorAll("[data-field]:not(.unsaved)")) {
    if (el === document.activeElement) continue;
    if (el.tagName === "SELECT") el.selectedIndex = el.querySelector("[selected]")?.index ?? 0;
    else if (el.value !== el.dataset.base) el.value = el.dataset.base;
  }
}

// place remembers where the hand is, and goes back there.
function place() {
  const el = document.activeElement;
  if (!el || el === document.body) return () => {};
  const at = { key: key(el), control: el.closest("[data-control]")?.dataset.control };
  return () => {
    if (document.activeElement === el) return;
    const there =
      (el.isConnected && el) ||
      (at.key && [...document.querySelectorAll("[id], [data-key]")].find((x) => key(x) === at.key)) ||
      document.querySelector(at.control ? `[data-control="${at.control}"] button` : "main [data-first]");
    (there || document.getElementById("main"))?.focus({ preventScroll: true });
  };
}

Alpine.store("page", {
  asking: 0,
  drawn: 0, // when it was last laid over
  ledOn: 0, // when an act last led on to the next part; the page itself came at 0
  grace: 400, // ms in which a finger that taps twice has not seen yet what came
  seen(at) { return at >= this.drawn && at - this.ledOn >= this.grace; },

  here() {
    return box().dataset.here || location.pathname + location.search;
  },

  version() { return Number(box().dataset.version); },

  has() {
    return [...document.querySelectorAll("[data-fragment]")]
      .map((x) => x.dataset.fragment + ":" + (x.dataset.sum || "0"))
      .join(" ");
  },
  // acted says in which list the hand is; what was held elsewhere is let go.
  acted(el) {
    const list = el.closest("[data-steady]");
    const row = list && el.closest("[data-steady] > *");
    if (row && el.closest("[data-set]")) row.dataset.acted = "";
    const id = list ? list.id : null;
    if (steady && steady !== id) {
      for (const x of document.querySelectorAll("[data-fragment]")) delete x.dataset.sum;
      for (const gone of document.querySelectorAll(".answered")) gone.remove();
    }
    steady = id;
  },
  // outdated drops an answer that is still on its way.
  outdated() { turn++; },
  // load asks for the page as it is now, and tells whether it came.
  async load(address) {
    const mine = ++turn;
    this.asking++;
    try {
      const headers = { "X-Requested-With": "corvek", "X-Corvek-Has": this.has() };
      const res = await fetch(address || this.here(), { headers });
      if (res.ok && mine === turn) this.lay(await res.json());
      return res.ok || res.status < 500;
    } catch {
      return false; // the server is away: what shows stays
    } finally {
      this.asking--;
    }
  },
  // take lays over what came with an answer, or asks for it where nothing came.
  async take(fresh, go) {
    if (!fresh && go) location.href = go;
    else if (!fresh) await this.load();
    else this.lay(fresh, go);
  },

  lay(fresh, go) {
    turn++;
    const names = Object.keys(fresh.fragments);
    if (names.some((n) => !fresh.fragments[n] || !fragment(n))) {
      location.href = go || fresh.here; // a page of another shape
      return;
    }
    const back = place();
    const line = names.includes("line") && document.querySelector(".line-box").scrollLeft;
    this.drawing = true;
    moving = !!go;
    Alpine.deferMutations();
    if (go) steady = null;
    for (const name of names) {
      const from = fragment(name);
      const to = new DOMParser().parseFromString(fresh.fragments[name], "text/html").body.firstElementChild;
      const held = hold(to);
      pair(from, to);
      Alpine.morph(from, to, options);
      if (held) delete from.dataset.sum;
      // The morph leaves its mark on components, and they would never again be equal.
      for (const x of from.querySelectorAll("[data-has-alpine-state]")) x.removeAttribute("data-has-alpine-state");
    }
    document.title = fresh.title + " · Corvek";
    box().dataset.here = fresh.here;
    box().dataset.version = fresh.version;
    if (go) history.pushState(null, "", fresh.here);
    setTimeout(() => Alpine.flushAndStopDeferringMutations());
    if (line) document.querySelector(".line-box").scrollLeft = line;
    values();
    this.drawing = false;
    this.drawn = performance.now();
    if (go) this.arrive();
    else back();
    window.dispatchEvent(new CustomEvent("laid"));
  },
  // arrive puts the hand on the act of the part that an act led on to.
  arrive() {
    this.ledOn = this.drawn;
    const act = document.querySelector('main [data-control="act"] button');
    (act || document.getElementById("main"))?.focus({ preventScroll: true });
    this.intoView();
  },
  // intoView shows the chosen part on a long line and in a long list.
  intoView() {
    document.querySelector(".decide > .sel")?.scrollIntoView({ block: "nearest" });
    const strip = document.querySelector(".line-box");
    const sel = strip && strip.querySelector(".lp.sel .hit");
    if (!sel) return;
    const b = strip.getBoundingClientRect();
    const s = sel.getBoundingClientRect();
    if (s.left < b.left || s.right > b.right) strip.scrollLeft += s.left - b.left - b.width / 2;
  },
});
