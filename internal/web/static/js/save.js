// Saving: every field that carries data-field saves by itself. What is typed is
// kept in this browser until the server has it, so that a reload, a wrong unit
// or a stopped server loses nothing.
(function () {
  "use strict";

  const csrf = () => document.querySelector("meta[name=csrf]").content;
  const tag = () => document.body.dataset.tag || "";
  const key = (field) => "draft:" + tag() + ":" + field;
  const clock = () => new Date().toTimeString().slice(0, 8);

  function byField(field) {
    return document.querySelector('[data-field="' + CSS.escape(field) + '"]');
  }

  const drafts = {
    get(field) {
      try {
        return JSON.parse(localStorage.getItem(key(field)) || "null");
      } catch {
        return null;
      }
    },
    put(field, draft) {
      localStorage.setItem(key(field), JSON.stringify(draft));
    },
    drop(field) {
      localStorage.removeItem(key(field));
    },
    all() {
      const head = key("");
      return Object.keys(localStorage)
        .filter((k) => k.startsWith(head))
        .map((k) => k.slice(head.length));
    },
  };

  function say(text, state) {
    const el = document.getElementById("saved");
    if (!el) return;
    el.textContent = text;
    el.className = "saved " + (state || "");
  }

  function chip(label, act) {
    const b = document.createElement("button");
    b.type = "button";
    b.className = "chip";
    b.textContent = label;
    b.addEventListener("click", act);
    return b;
  }

  function showError(field, text, conflict) {
    const at = document.querySelector('[data-err="' + CSS.escape(field) + '"]');
    const input = byField(field);
    if (input) {
      input.classList.toggle("bad", !!text);
      input.setAttribute("aria-invalid", text ? "true" : "false");
    }
    if (!at) {
      if (text) say(text, "bad");
      return;
    }
    at.textContent = text || "";
    at.classList.toggle("on", !!text);
    if (!conflict) return;
    at.append(
      " ",
      chip("save theirs", () => {
        drafts.drop(field);
        refresh();
      }),
      " ",
      chip("use mine", () => {
        const d = drafts.get(field);
        save(field, d ? d.value : input.value, conflict.theirs, d && d.unit);
      }),
    );
  }

  // stale marks the verdict of a sheet as older than what stands in its fields.
  function stale(input) {
    const sheet = input.closest(".sheet, details");
    if (!sheet) return;
    for (const v of sheet.querySelectorAll(".verdict")) v.classList.add("old");
  }

  // waiting counts the values that are kept here until the server has them.
  function waiting() {
    return Object.keys(localStorage).filter((k) => k.startsWith("draft:")).length;
  }

  async function post(url, body) {
    const headers = { "X-CSRF-Token": csrf(), "X-Requested-With": "corvek" };
    headers["X-Corvek-Drafts"] = String(waiting());
    const res = await fetch(url, { method: "POST", body, headers });
    let json = {};
    try {
      json = await res.json();
    } catch {
      // A proxy's page: the status tells enough.
    }
    const asked = res.status === 403 && json.error && json.error.confirm;
    if (asked && (await window.corvekAgain.ask())) return post(url, body);
    return { status: res.status, ok: res.ok, json };
  }

  const busy = new Map(); // field → the save under way, so that two never cross

  function save(field, value, base, unit) {
    const before = busy.get(field) || Promise.resolve();
    const mine = before.then(() => saveNow(field, value, base, unit || ""));
    busy.set(field, mine);
    mine.finally(() => {
      if (busy.get(field) === mine) busy.delete(field);
    });
    return mine;
  }

  async function saveNow(field, value, base, unit) {
    drafts.put(field, { value, base, unit, waiting: true });
    say("saving…", "");
    let answer;
    try {
      const body = new URLSearchParams({ field, value, base, unit });
      answer = await post("/jobs/" + tag() + "/set", body);
    } catch {
      say("the shop's server does not answer; kept here and sent when it does", "wait");
      return false;
    }
    if (answer.status === 503) {
      const full = answer.json.error && answer.json.error.text.includes("no room");
      const why = full ? "no room on the store's disk" : "the store is coming back";
      say(why + "; kept here and sent when it does", "wait");
      return false;
    }
    if (answer.ok) {
      kept(field, value, answer.json.value);
      await refresh();
      return true;
    }
    refused(field, { value, base, unit }, answer);
    return false;
  }

  // kept shows what is stored: a bare figure comes back with its unit.
  function kept(field, sent, stored) {
    const input = byField(field);
    const draft = drafts.get(field);
    const typedOn = draft && draft.value !== sent;
    if (!typedOn) drafts.drop(field);
    if (input) {
      input.dataset.base = stored;
      if (!typedOn && input.tagName !== "SELECT") input.value = stored;
      if (!typedOn) input.classList.remove("unsaved");
    }
    showError(field, "");
    say("saved " + clock(), "ok");
  }

  function refused(field, draft, answer) {
    const error = answer.json.error || {};
    const again = "sign in again; what you typed is kept";
    const text = error.text || (answer.status === 401 ? again : "not saved; what you typed is kept");
    drafts.put(field, { ...draft, error: text, theirs: error.theirs });
    showError(field, text, answer.status === 409 ? { theirs: error.theirs } : null);
    say("not saved", "bad");
  }

  // Drafts come back into their fields after a reload or a fresh drawing of the page.
  function restore() {
    for (const field of drafts.all()) {
      const input = byField(field);
      const d = drafts.get(field);
      if (!input || !d) continue;
      if (d.value === input.getAttribute("data-base")) {
        drafts.drop(field);
        continue;
      }
      if (document.activeElement !== input) input.value = d.value;
      input.classList.add("unsaved");
      stale(input);
      if (d.error) showError(field, d.error, d.theirs !== undefined ? { theirs: d.theirs } : null);
    }
  }

  async function retry() {
    for (const field of drafts.all()) {
      const d = drafts.get(field);
      if (!d || !d.waiting || busy.has(field)) continue;
      if (!(await save(field, d.value, d.base, d.unit))) return;
    }
  }
  setInterval(retry, 4000);

  let turn = 0;

  // outdated drops an answer that is still on its way: something was typed since it was
  // asked for, and it would be written over.
  const outdated = () => turn++;

  // refresh draws the page anew from the server without losing focus or drafts.
  async function refresh() {
    const mine = ++turn;
    let text;
    try {
      const res = await fetch(location.href, { headers: { Accept: "text/html" } });
      if (!res.ok) return;
      text = await res.text();
    } catch {
      return;
    }
    if (mine !== turn) return;
    const fresh = new DOMParser().parseFromString(text, "text/html");
    const next = fresh.getElementById("page");
    const now = document.getElementById("page");
    if (!next || !now) return;
    document.title = fresh.title;
    const box = document.querySelector(".line-box");
    const left = box ? box.scrollLeft : 0;
    for (const v of now.querySelectorAll(".verdict.old")) v.classList.remove("old");
    window.Idiomorph.morph(now, next, { ignoreActiveValue: true, callbacks: { beforeNodeMorphed } });
    takeValues();
    const again = document.querySelector(".line-box");
    if (again) again.scrollLeft = left;
    restore();
    document.dispatchEvent(new CustomEvent("corvek:fresh"));
  }

  // beforeNodeMorphed keeps what belongs to the reader and not to the page: drawers
  // he opened, what was just said, a plain field he types in.
  function beforeNodeMorphed(from, to) {
    if (from.nodeType !== 1) return true;
    if (from.tagName === "DETAILS" && from.open) to.setAttribute("open", "");
    if (from.id === "saved" || from.dataset.keep !== undefined) return false;
    const plain = "input:not([data-field]), textarea:not([data-field])";
    return !(from === document.activeElement && from.matches(plain));
  }

  // takeValues puts what the server drew into fields that hold no draft: a
  // field that was typed in does not follow its attribute any more.
  function takeValues() {
    for (const el of document.querySelectorAll("[data-field]")) {
      if (drafts.get(el.dataset.field) || el === document.activeElement) continue;
      if (el.tagName === "SELECT") {
        for (const o of el.options) o.selected = o.hasAttribute("selected");
        if (!el.querySelector("[selected]")) el.selectedIndex = 0;
        continue;
      }
      const area = el.tagName === "TEXTAREA";
      const want = el.getAttribute(area ? "data-base" : "value") || "";
      if (el.value !== want) el.value = want;
    }
  }

  let acts = 0; // commands under way

  // The buttons of a form rest while it is sent, so that a second tap does nothing.
  async function submit(form, button) {
    if (form.dataset.sending) return;
    form.dataset.sending = "yes";
    acts++;
    try {
      await submitNow(form, button);
    } finally {
      acts--;
      delete form.dataset.sending;
    }
  }

  async function submitNow(form, button) {
    const data = new FormData(form, button || undefined);
    for (const e of form.querySelectorAll("[data-err]")) {
      e.textContent = "";
      e.classList.remove("on");
    }
    const file = form.enctype === "multipart/form-data";
    let answer;
    try {
      answer = await post(form.action, file ? data : new URLSearchParams(data));
    } catch {
      say("the shop's server does not answer; nothing was lost, try again", "wait");
      return;
    }
    if (answer.ok) {
      for (const el of form.querySelectorAll("input:not([type=hidden]), textarea")) {
        if (!["checkbox", "radio"].includes(el.type)) el.value = "";
      }
      if (answer.json.go && !form.hasAttribute("data-stay")) {
        location.href = answer.json.go;
        return;
      }
      say("saved " + clock(), "ok");
      await refresh();
      return;
    }
    const error = answer.json.error || {};
    const named = form.querySelector('[data-err="' + CSS.escape(error.field || "") + '"]');
    const at = named || form.querySelector("[data-err]");
    if (!at) {
      say(error.text || "not done", "bad");
      return;
    }
    at.textContent = (named ? "" : error.field ? error.field + ": " : "") + (error.text || "not done");
    at.classList.add("on");
  }

  // idle tells tests, and nobody else, that nothing is under way.
  const idle = () => busy.size === 0 && acts === 0;

  window.corvek = { idle, save, refresh, outdated, restore, submit, drafts, byField, say, stale };
})();
