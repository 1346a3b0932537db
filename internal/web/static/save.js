// Saving: every field that carries data-field saves by itself. What is typed is
// kept in this browser until the server has it, so that a reload, a wrong unit or
// a stopped server loses nothing.
(function () {
  "use strict";
  const csrf = () => document.querySelector("meta[name=csrf]").content;
  const tag = () => document.body.dataset.tag || "";
  const key = (field) => "draft:" + tag() + ":" + field;
  const byField = (field) => document.querySelector('[data-field="' + CSS.escape(field) + '"]');

  const drafts = {
    get(field) {
      try { return JSON.parse(localStorage.getItem(key(field)) || "null"); } catch { return null; }
    },
    put(field, draft) { localStorage.setItem(key(field), JSON.stringify(draft)); },
    drop(field) { localStorage.removeItem(key(field)); },
    all() {
      const head = "draft:" + tag() + ":";
      return Object.keys(localStorage).filter((k) => k.startsWith(head)).map((k) => k.slice(head.length));
    },
  };

  function say(text, state) {
    const el = document.getElementById("saved");
    if (!el) return;
    el.textContent = text;
    el.className = "saved " + (state || "");
  }

  function showError(field, text, conflict) {
    const at = document.querySelector('[data-err="' + CSS.escape(field) + '"]');
    const input = byField(field);
    if (input) {
      input.classList.toggle("bad", !!text);
      input.setAttribute("aria-invalid", text ? "true" : "false");
    }
    if (!at) { if (text) say(text, "bad"); return; }
    at.textContent = text || "";
    at.classList.toggle("on", !!text);
    if (conflict) {
      const make = (label, act) => {
        const b = document.createElement("button");
        b.type = "button"; b.className = "chip"; b.textContent = label;
        b.addEventListener("click", act);
        at.append(" ", b);
      };
      make("keep theirs", () => { drafts.drop(field); refresh(); });
      make("use mine", () => { const d = drafts.get(field); save(field, d ? d.value : input.value, conflict.theirs); });
    }
  }

  async function post(url, body) {
    const res = await fetch(url, { method: "POST", body, headers: { "X-CSRF-Token": csrf(), "X-Requested-With": "corvek" } });
    let json = {};
    try { json = await res.json(); } catch { /* a proxy's page: the status tells enough */ }
    return { status: res.status, ok: res.ok, json };
  }

  const busy = new Map(); // field → the save under way, so that two never cross

  function save(field, value, base) {
    const before = busy.get(field) || Promise.resolve();
    const mine = before.then(() => saveNow(field, value, base));
    busy.set(field, mine);
    mine.finally(() => { if (busy.get(field) === mine) busy.delete(field); });
    return mine;
  }

  async function saveNow(field, value, base) {
    drafts.put(field, { value, base, waiting: true });
    say("saving…", "");
    let answer;
    try {
      answer = await post("/jobs/" + tag() + "/set", new URLSearchParams({ field, value, base }));
    } catch {
      say("the shop's server does not answer; kept here and sent when it does", "wait");
      return false;
    }
    if (answer.ok) {
      drafts.drop(field);
      const input = byField(field);
      if (input) { input.dataset.base = value; input.classList.remove("unsaved"); }
      showError(field, "");
      say("saved " + new Date().toTimeString().slice(0, 8), "ok");
      await refresh();
      return true;
    }
    const error = answer.json.error || {};
    const text = error.text || (answer.status === 401 ? "sign in again; what you typed is kept" : "not saved; what you typed is kept");
    drafts.put(field, { value, base, error: text, theirs: error.theirs });
    showError(field, text, answer.status === 409 ? { theirs: error.theirs } : null);
    say("not saved", "bad");
    return false;
  }

  // Drafts come back into their fields after a reload or a fresh drawing of the page.
  function restore() {
    for (const field of drafts.all()) {
      const input = byField(field);
      const d = drafts.get(field);
      if (!input || !d) continue;
      if (d.value === input.getAttribute("data-base")) { drafts.drop(field); continue; }
      if (document.activeElement !== input) input.value = d.value;
      input.classList.add("unsaved");
      if (d.error) showError(field, d.error, d.theirs !== undefined ? { theirs: d.theirs } : null);
    }
  }

  async function retry() {
    for (const field of drafts.all()) {
      const d = drafts.get(field);
      if (d && d.waiting && !busy.has(field)) {
        const ok = await save(field, d.value, d.base);
        if (!ok) return;
      }
    }
  }
  setInterval(retry, 4000);

  let turn = 0;
  // refresh draws the page anew from the server without losing focus or drafts.
  async function refresh() {
    const mine = ++turn;
    let text;
    try {
      const res = await fetch(location.href, { headers: { Accept: "text/html" } });
      if (!res.ok) return;
      text = await res.text();
    } catch { return; }
    if (mine !== turn) return;
    const fresh = new DOMParser().parseFromString(text, "text/html");
    const next = fresh.getElementById("page");
    const now = document.getElementById("page");
    if (!next || !now) return;
    document.title = fresh.title;
    const saved = document.getElementById("saved");
    const said = saved ? [saved.textContent, saved.className] : null;
    const box = document.querySelector(".line-box");
    const left = box ? box.scrollLeft : 0;
    window.Alpine.morph(now, next.outerHTML, {
      key: (el) => el.id || (el.dataset && (el.dataset.field || el.dataset.part || el.dataset.err)) || undefined,
      updating(from, to, childrenOnly, skip) {
        if (from.nodeType !== 1) return;
        if (from.tagName === "DETAILS" && from.open) to.setAttribute("open", "");
        if (from.id === "saved") skip();
        if (from === document.activeElement && from.matches("input:not([data-field]), textarea:not([data-field])")) skip();
      },
    });
    for (const el of document.querySelectorAll("input[data-field], textarea[data-field], select[data-field]")) {
      const d = drafts.get(el.dataset.field);
      if (d || el === document.activeElement) continue;
      if (el.tagName === "SELECT") { for (const o of el.options) o.selected = o.hasAttribute("selected"); if (!el.querySelector("[selected]")) el.selectedIndex = 0; continue; }
      const want = el.tagName === "TEXTAREA" ? el.getAttribute("data-base") : el.getAttribute("value");
      if (el.value !== want) el.value = want || "";
    }
    if (said && document.getElementById("saved")) { document.getElementById("saved").textContent = said[0]; document.getElementById("saved").className = said[1]; }
    const again = document.querySelector(".line-box");
    if (again) again.scrollLeft = left;
    restore();
    document.dispatchEvent(new CustomEvent("corvek:fresh"));
  }

  let acts = 0; // commands under way

  async function submit(form, button) {
    acts++;
    try { await submitNow(form, button); } finally { acts--; }
  }

  async function submitNow(form, button) {
    const data = new FormData(form, button || undefined);
    for (const e of form.querySelectorAll("[data-err]")) { e.textContent = ""; e.classList.remove("on"); }
    let answer;
    try { answer = await post(form.action, form.enctype === "multipart/form-data" ? data : new URLSearchParams(data)); } catch {
      say("the shop's server does not answer; nothing was lost, try again", "wait");
      return;
    }
    if (answer.ok) {
      for (const el of form.querySelectorAll("input:not([type=hidden]), textarea")) { if (el.type !== "checkbox") el.value = ""; }
      if (answer.json.go) { location.href = answer.json.go; return; }
      say("saved " + new Date().toTimeString().slice(0, 8), "ok");
      await refresh();
      return;
    }
    const error = answer.json.error || {};
    const at = form.querySelector('[data-err="' + CSS.escape(error.field || "") + '"]') || form.querySelector("[data-err]");
    if (at) { at.textContent = error.text || "not done"; at.classList.add("on"); } else say(error.text || "not done", "bad");
  }

  // idle tells tests, and nobody else, that nothing is under way.
  const idle = () => busy.size === 0 && acts === 0;

  window.corvek = { idle, save, refresh, restore, submit, drafts, byField, say };
})();
