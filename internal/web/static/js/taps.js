// Taps: a button that carries data-set writes a value; others fill a field of
// their form, count up and down, turn a piece over or pin a mark on a picture.
(function () {
  "use strict";

  function cookie(name, value) {
    document.cookie = name + "=" + value + ";path=/;max-age=31536000;samesite=lax";
  }

  // A tap locks its row until that is drawn anew: the second of two quick taps
  // must not land on another row that moved under the finger.
  let locked = null;

  async function write(set) {
    const d = set.dataset;
    const row = set.closest("li, tr, .gq") || set;
    if (locked) return;
    locked = row;
    row.classList.add("busy");
    try {
      window.corvek.drafts.drop(d.set);
      const input = window.corvek.byField(d.set);
      if (input && input !== document.activeElement) input.value = d.value;
      let ok = true;
      if (d.set2) ok = await window.corvek.save(d.set2, d.value2, d.base2 || "");
      ok = ok && (await window.corvek.save(d.set, d.value, d.base || ""));
      // A tap that failed leaves no draft behind: the button itself is the offer to try again.
      if (!input) {
        const draft = window.corvek.drafts.get(d.set);
        if (draft && !draft.waiting) window.corvek.drafts.drop(d.set);
      }
      if (ok && d.go) location.href = d.go;
    } finally {
      row.classList.remove("busy");
      locked = null;
    }
  }

  function tapped(e) {
    const at = (query) => e.target.closest(query);
    const set = at("[data-set]");
    if (set && !set.disabled) {
      e.preventDefault();
      write(set);
      return;
    }
    if (at("[data-fill]")) return fill(at("[data-fill]"));
    if (at("[data-step]")) return count(at("[data-step]"));
    if (at("[data-shot]")) {
      const shot = at("[data-shot]");
      const b = shot.getBoundingClientRect();
      return pin(shot, (e.clientX - b.left) / b.width, (e.clientY - b.top) / b.height);
    }
    if (at("[data-flip]")) return flip(at("[data-flip]"));
    if (at("[data-do]")) act(at("[data-do]").dataset.do, at("[data-do]").dataset.value);
  }

  function fill(button) {
    const form = button.closest("form");
    const input = form && form.querySelector('[name="' + button.dataset.fill + '"]');
    if (!input) return;
    input.value = button.dataset.value;
    input.focus();
  }

  function count(button) {
    const input = window.corvek.byField(button.dataset.for);
    const n = Math.max(0, (parseInt(input.value || "0", 10) || 0) + Number(button.dataset.step));
    input.value = String(n);
    window.corvek.save(button.dataset.for, String(n), input.dataset.base);
  }

  // A drawn disc or plate that is clicked is turned over in the text it stands for.
  function flip(el) {
    const input = document.getElementById("in-" + el.dataset.in);
    const other = { "<": ">", ">": "<", f: "s", s: "f" };
    const text = input.value.replace(/\s+/g, "");
    const i = Number(el.dataset.flip);
    input.value = text.slice(0, i) + (other[text[i].toLowerCase()] || text[i]) + text.slice(i + 1);
    input.dispatchEvent(new Event("input", { bubbles: true }));
  }

  // A mark is pinned on a picture at a share of its width and height.
  function pin(shot, x, y) {
    const form = document.getElementById("markform");
    const box = shot.viewBox.baseVal;
    if (!form) return;
    x = Math.min(1, Math.max(0, x));
    y = Math.min(1, Math.max(0, y));
    form.elements.x.value = x.toFixed(4);
    form.elements.y.value = y.toFixed(4);
    const dot = shot.querySelector(".shot-n");
    dot.setAttribute("cx", x * box.width);
    dot.setAttribute("cy", y * box.height);
    document.getElementById("shot-hint").textContent = "Now say what is seen there.";
    if (window.corvekPad.pointed()) document.getElementById("mark-note").focus({ preventScroll: true });
  }

  // move pins a mark a little further with an arrow key.
  function move(e, shot) {
    const way = { ArrowLeft: [-0.02, 0], ArrowRight: [0.02, 0], ArrowUp: [0, -0.02], ArrowDown: [0, 0.02] }[
      e.key
    ];
    if (!way) return false;
    e.preventDefault();
    const at = document.getElementById("markform").elements;
    const where = (v) => (v === "" ? 0.5 : Number(v));
    pin(shot, where(at.x.value) + way[0], where(at.y.value) + way[1]);
    return true;
  }

  function act(what, value) {
    if (what === "units") {
      cookie("corvek_units", value);
      window.corvek.refresh();
    }
    if (what === "theme") {
      const root = document.documentElement;
      const system = matchMedia("(prefers-color-scheme: dark)").matches;
      const dark = root.dataset.theme ? root.dataset.theme === "dark" : system;
      root.dataset.theme = dark ? "light" : "dark";
      cookie("corvek_theme", root.dataset.theme);
    }
    if (what === "help") {
      const help = document.getElementById("help");
      document.getElementById("single-keys").checked = window.corvekKeys.singleKeys();
      if (!help.open) help.showModal();
    }
    if (what === "keys") {
      const on = document.getElementById("single-keys").checked;
      localStorage.setItem("corvek:keys", on ? "on" : "off");
    }
  }

  document.addEventListener("click", tapped);

  window.corvekTaps = { tapped, flip, move, act };
})();
