// The shell: keys, taps, the number pad, theme and units.
(function () {
  "use strict";
  const cookie = (name, value) => { document.cookie = name + "=" + value + ";path=/;max-age=31536000;samesite=lax"; };
  const typing = (el) => el && (el.tagName === "INPUT" || el.tagName === "TEXTAREA" || el.tagName === "SELECT");

  document.addEventListener("alpine:init", () => {
    window.Alpine.data("shell", () => ({
      init() {
        window.corvek.restore();
        document.addEventListener("click", (e) => this.tapped(e));
        document.addEventListener("change", (e) => this.changed(e));
        document.addEventListener("input", (e) => this.typed(e));
        document.addEventListener("keydown", (e) => this.keyed(e));
        document.addEventListener("submit", (e) => this.sent(e));
        document.addEventListener("pointerdown", (e) => this.pointed(e));
        document.addEventListener("focusin", (e) => this.focused(e));
        window.addEventListener("focus", () => { if (document.body.dataset.tag && !typing(document.activeElement)) window.corvek.refresh(); });
        this.intoView();
      },

      // The chosen part is brought into view on a long line.
      intoView() {
        const box = document.querySelector(".line-box");
        const sel = box && box.querySelector(".lp.sel .hit");
        if (!sel) return;
        const b = box.getBoundingClientRect(), s = sel.getBoundingClientRect();
        if (s.left < b.left || s.right > b.right) box.scrollLeft += s.left - b.left - b.width / 2;
      },

      async tapped(e) {
        const set = e.target.closest("[data-set]");
        if (set && !set.disabled) {
          e.preventDefault();
          const d = set.dataset;
          set.classList.add("busy");
          window.corvek.drafts.drop(d.set);
          const input = window.corvek.byField(d.set);
          if (input && input !== document.activeElement) input.value = d.value;
          let ok = true;
          if (d.set2) ok = await window.corvek.save(d.set2, d.value2, d.base2 || "");
          ok = ok && (await window.corvek.save(d.set, d.value, d.base || ""));
          set.classList.remove("busy");
          // A tap that failed leaves no draft behind: the button itself is the offer to try again.
          if (!input) { const draft = window.corvek.drafts.get(d.set); if (draft && !draft.waiting) window.corvek.drafts.drop(d.set); }
          if (ok && d.go) location.href = d.go;
          return;
        }
        const fill = e.target.closest("[data-fill]");
        if (fill) {
          const form = fill.closest("form");
          const input = form && form.querySelector('[name="' + fill.dataset.fill + '"]');
          if (input) { input.value = fill.dataset.value; input.focus(); }
          return;
        }
        const step = e.target.closest("[data-step]");
        if (step) {
          const input = window.corvek.byField(step.dataset.for);
          const n = Math.max(0, (parseInt(input.value || "0", 10) || 0) + Number(step.dataset.step));
          input.value = String(n);
          window.corvek.save(step.dataset.for, String(n), input.dataset.base);
          return;
        }
        const shot = e.target.closest("[data-shot]");
        if (shot) { const b = shot.getBoundingClientRect(); this.pin(shot, (e.clientX - b.left) / b.width, (e.clientY - b.top) / b.height); return; }
        const flip = e.target.closest("[data-flip]");
        if (flip) { this.flip(flip); return; }
        const act = e.target.closest("[data-do]");
        if (act) this.act(act.dataset.do, act.dataset.value);
      },

      // A drawn disc or plate that is clicked is turned over in the text it stands for.
      flip(el) {
        const input = document.getElementById("in-" + el.dataset.in);
        const other = { "<": ">", ">": "<", f: "s", s: "f" };
        const text = input.value.replace(/\s+/g, ""), i = Number(el.dataset.flip);
        input.value = text.slice(0, i) + (other[text[i].toLowerCase()] || text[i]) + text.slice(i + 1);
        input.dispatchEvent(new Event("input", { bubbles: true }));
      },

      // A mark is pinned on a picture at a share of its width and height.
      pin(shot, x, y) {
        const form = document.getElementById("markform"), box = shot.viewBox.baseVal;
        if (!form) return;
        x = Math.min(1, Math.max(0, x)); y = Math.min(1, Math.max(0, y));
        form.elements.x.value = x.toFixed(4); form.elements.y.value = y.toFixed(4);
        const dot = shot.querySelector(".shot-n");
        dot.setAttribute("cx", x * box.width); dot.setAttribute("cy", y * box.height);
        document.getElementById("shot-hint").textContent = "Now say what is seen there.";
        if (this.byPointer) document.getElementById("mark-note").focus({ preventScroll: true });
      },

      act(what, value) {
        if (what === "units") { cookie("corvek_units", value); window.corvek.refresh(); }
        if (what === "theme") {
          const root = document.documentElement;
          const dark = root.dataset.theme ? root.dataset.theme === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
          root.dataset.theme = dark ? "light" : "dark";
          cookie("corvek_theme", root.dataset.theme);
        }
        if (what === "help") { const h = document.getElementById("help"); if (!h.open) h.showModal(); }
      },

      typed(e) {
        const el = e.target;
        if (el.id === "find") this.find(el.value);
        if (el.id === "board-find") this.sift(el.value);
        if (el.form && el.form.hasAttribute("data-live")) this.live(el.form);
        if (el.dataset && el.dataset.field) {
          window.corvek.drafts.put(el.dataset.field, { value: el.value, base: el.dataset.base });
          el.classList.add("unsaved");
        }
      },

      // A calculator works as one types; its address carries the inputs.
      live(form) {
        clearTimeout(this.later);
        this.later = setTimeout(() => {
          const query = new URLSearchParams([...new FormData(form)].filter(([, v]) => v !== ""));
          history.replaceState(null, "", form.getAttribute("action") + "?" + query);
          window.corvek.refresh();
        }, 250);
      },

      sift(text) {
        const words = text.toLowerCase().split(/\s+/).filter(Boolean);
        for (const li of document.querySelectorAll(".board li")) li.hidden = !words.every((w) => li.textContent.toLowerCase().includes(w));
      },

      find(text) {
        const words = text.toLowerCase().split(/\s+/).filter(Boolean);
        for (const item of document.querySelectorAll("[data-find]")) {
          const hay = item.dataset.find.toLowerCase();
          item.hidden = !words.every((w) => hay.includes(w));
        }
        const none = document.getElementById("found-none");
        if (none) none.hidden = [...document.querySelectorAll("[data-find]")].some((x) => !x.hidden);
        for (const bay of document.querySelectorAll(".bay")) bay.hidden = ![...bay.querySelectorAll("[data-find]")].some((j) => !j.hidden);
      },

      // Enter opens the first that was found.
      openFound() {
        const first = [...document.querySelectorAll("[data-find]")].find((x) => !x.hidden);
        if (first) (first.matches("a") ? first : first.querySelector("a")).click();
      },

      changed(e) {
        const el = e.target;
        if (!el.dataset || !el.dataset.field) return;
        if (el.value.trim() === el.dataset.base) { window.corvek.drafts.drop(el.dataset.field); el.classList.remove("unsaved"); return; }
        window.corvek.save(el.dataset.field, el.value, el.dataset.base);
      },

      // Enter saves and goes on, so that a caliper that types can fill a sheet.
      advance(el) {
        const all = [...document.querySelectorAll("main input[data-field]:not([readonly]), main textarea[data-field]:not([readonly])")].filter((x) => x.offsetParent);
        const next = all[all.indexOf(el) + 1];
        if (next) { next.focus(); if (next.select) next.select(); } else el.blur();
      },

      keyed(e) {
        const el = document.activeElement;
        if (e.ctrlKey || e.metaKey || e.altKey) return;
        if (typing(el)) {
          if (e.key === "Escape") { el.blur(); this.hidePad(); return; }
          if (e.key === "Enter" && el.id === "find" && el.value.trim() !== "") { e.preventDefault(); this.openFound(); return; }
          if (e.key === "Enter" && el.dataset.field && el.tagName === "INPUT") { e.preventDefault(); this.advance(el); }
          return;
        }
        if (document.getElementById("help").open) return;
        if (el && el.dataset && el.dataset.leaf !== undefined) {
          const word = { g: "goes", d: "drags", s: "stops", Backspace: "", Delete: "" }[e.key];
          if (word !== undefined) { e.preventDefault(); window.corvek.save(el.dataset.set, word, el.dataset.base || ""); return; }
        }
        if (el && el.tagName === "g" && el.dataset.set && (e.key === "Enter" || e.key === " ")) { e.preventDefault(); this.tapped({ target: el, preventDefault() {} }); return; }
        if (el && el.dataset && el.dataset.flip !== undefined && (e.key === "Enter" || e.key === " ")) { e.preventDefault(); this.flip(el); return; }
        const way = { ArrowLeft: [-.02, 0], ArrowRight: [.02, 0], ArrowUp: [0, -.02], ArrowDown: [0, .02] }[e.key];
        if (el && el.dataset && el.dataset.shot !== undefined && way) {
          e.preventDefault();
          const at = document.getElementById("markform").elements;
          this.pin(el, (at.x.value === "" ? .5 : Number(at.x.value)) + way[0], (at.y.value === "" ? .5 : Number(at.y.value)) + way[1]);
          return;
        }
        const follow = (q) => { const a = document.querySelector(q); if (a) { e.preventDefault(); location.href = a.getAttribute("href"); } };
        if (/^[1-9]$/.test(e.key)) follow('[data-station="' + e.key + '"]');
        else if (e.key === "ArrowLeft") follow("[data-prev]");
        else if (e.key === "ArrowRight") follow("[data-succ]");
        else if (e.key === "n") follow("[data-next-stop]");
        else if (e.key === "?") this.act("help");
        else if (e.key === "u") this.act("units", document.querySelector('[data-do=units][data-value=in][aria-pressed=true]') ? "mm" : "in");
        else if (e.key === "/") {
          e.preventDefault();
          const find = document.getElementById("find");
          if (find) find.focus(); else location.href = "/rack";
        }
      },

      sent(e) {
        const form = e.target;
        if (!form.hasAttribute("data-act")) return;
        e.preventDefault();
        window.corvek.submit(form, e.submitter);
      },

      // --- the pad: digits, units and letters for a hand that holds no keyboard ---
      pointed(e) {
        this.byPointer = true;
        const inPad = e.target.closest("#pad");
        if (inPad) return;
        const field = e.target.closest("input, textarea");
        if (!field || !(field.dataset.field || field.dataset.pad !== undefined) || field.readOnly) this.hidePad();
      },

      focused(e) {
        const el = e.target;
        const wants = typing(el) && !el.readOnly && el.tagName !== "SELECT" && el.type !== "file" && el.type !== "checkbox" && (el.dataset.field || el.dataset.pad !== undefined);
        if (wants && this.byPointer) this.showPad(el); else if (!wants) this.hidePad();
        this.byPointer = false;
      },

      showPad(el) {
        const pad = document.getElementById("pad");
        pad.hidden = false;
        pad.setAttribute("aria-hidden", "false");
        const kind = el.dataset.kind || (el.tagName === "TEXTAREA" ? "text" : "quantity");
        this.fillPad(pad, kind === "text" || el.tagName === "TEXTAREA" ? "letters" : "digits", (el.dataset.units || "").split("|").filter(Boolean));
        const box = el.getBoundingClientRect();
        pad.classList.toggle("up", box.top > innerHeight / 2);
        pad.classList.toggle("to-left", box.left > innerWidth / 2);
      },

      hidePad() {
        const pad = document.getElementById("pad");
        if (pad && !pad.hidden) { pad.hidden = true; pad.setAttribute("aria-hidden", "true"); }
      },

      fillPad(pad, layout, units) {
        const rows = layout === "digits"
          ? [["7", "8", "9", "⌫"], ["4", "5", "6", "/"], ["1", "2", "3", "-"], ["0", ".", "␣", "abc"], units, ["✓"]]
          : [[..."1234567890"], [..."qwertyuiop"], [..."asdfghjkl"], [..."zxcvbnm", ",", "."], ["123", "⇧", "␣", "-", "⌫", "✓"]];
        pad.className = "pad " + layout + (pad.classList.contains("up") ? " up" : "");
        pad.replaceChildren(...rows.filter((r) => r.length).map((row) => {
          const div = document.createElement("div");
          for (const k of row) {
            const b = document.createElement("button");
            b.type = "button"; b.tabIndex = -1; b.textContent = k;
            if (k === "✓") b.className = "enter";
            b.addEventListener("pointerdown", (e) => { e.preventDefault(); e.stopPropagation(); this.press(k, layout, units); });
            div.append(b);
          }
          return div;
        }));
      },

      press(k, layout, units) {
        const el = document.activeElement;
        const pad = document.getElementById("pad");
        if (k === "abc") return this.fillPad(pad, "letters", units);
        if (k === "123") return this.fillPad(pad, "digits", units);
        if (k === "⇧") { this.shift = !this.shift; return; }
        if (!typing(el)) return;
        if (k === "✓") {
          this.hidePad();
          if (el.dataset.field) el.blur();
          return;
        }
        let text = k === "␣" ? " " : k;
        if (this.shift && text.length === 1) { text = text.toUpperCase(); this.shift = false; }
        const a = el.selectionStart, b = el.selectionEnd;
        if (k === "⌫") el.setRangeText("", a === b ? Math.max(0, a - 1) : a, b, "end");
        else if (units.includes(k)) { el.value = el.value.replace(/[^\d.,/\- ].*$/, "").trimEnd() + " " + k; }
        else el.setRangeText(text, a, b, "end");
        el.dispatchEvent(new Event("input", { bubbles: true }));
        // A value set by script gives no change event of its own when the field is left.
        el.addEventListener("blur", () => el.dispatchEvent(new Event("change", { bubbles: true })), { once: true });
      },
    }));
  });
})();
