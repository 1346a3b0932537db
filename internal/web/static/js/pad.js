// The pad: digits, units and letters for a hand that holds no keyboard. It
// comes when a field is touched, never when it is reached by keys.
(function () {
  "use strict";

  const digits = [
    ["7", "8", "9", "⌫"],
    ["4", "5", "6", "/"],
    ["1", "2", "3", "-"],
    ["0", ".", "␣", "abc"],
  ];
  const letters = [
    [..."1234567890"],
    [..."qwertyuiop"],
    [..."asdfghjkl"],
    [..."zxcvbnm", ",", "."],
    ["123", "⇧", "␣", "-", "⌫"],
  ];
  const last = ["✓", "→"]; // done; save and go to the next field

  let capital = false;
  let byPointer = false;

  const pad = () => document.getElementById("pad");
  const typing = (el) => el && (el.tagName === "INPUT" || el.tagName === "TEXTAREA");

  function wanted(el) {
    if (!typing(el) || el.readOnly || el.type === "file" || el.type === "checkbox" || el.type === "radio")
      return false;
    return el.dataset.field !== undefined || el.dataset.pad !== undefined;
  }

  function show(el) {
    const p = pad();
    p.hidden = false;
    p.setAttribute("aria-hidden", "false");
    const kind = el.dataset.kind || (el.tagName === "TEXTAREA" ? "text" : "quantity");
    const layout = kind === "text" || el.tagName === "TEXTAREA" ? "letters" : "digits";
    const units = (el.dataset.units || "").split("|").filter(Boolean);
    fill(p, layout, units);
    const box = el.getBoundingClientRect();
    p.classList.toggle("up", box.top > innerHeight / 2);
    p.classList.toggle("to-left", box.left > innerWidth / 2);
    // What the next key replaces is selected, as a keyboard's Tab does it.
    if (el.dataset.field && el.tagName === "INPUT") el.select();
  }

  function hide() {
    const p = pad();
    if (!p || p.hidden) return;
    p.hidden = true;
    p.setAttribute("aria-hidden", "true");
  }

  function fill(p, layout, units) {
    const rows = layout === "digits" ? [...digits, units, last] : [...letters, last];
    p.className = "pad " + layout + (p.classList.contains("up") ? " up" : "");
    p.replaceChildren(...rows.filter((r) => r.length).map((row) => rowOf(row, layout, units)));
  }

  function rowOf(row, layout, units) {
    const div = document.createElement("div");
    for (const k of row) {
      const b = document.createElement("button");
      b.type = "button";
      b.tabIndex = -1;
      b.textContent = k;
      if (last.includes(k)) b.className = "enter";
      b.addEventListener("pointerdown", (e) => {
        e.preventDefault();
        e.stopPropagation();
        press(k, layout, units);
      });
      div.append(b);
    }
    return div;
  }

  function press(k, layout, units) {
    const el = document.activeElement;
    if (k === "abc") return fill(pad(), "letters", units);
    if (k === "123") return fill(pad(), "digits", units);
    if (k === "⇧") {
      capital = !capital;
      return;
    }
    if (!typing(el)) return;
    if (k === "✓") {
      hide();
      if (el.dataset.field) el.blur();
      return;
    }
    if (k === "→") {
      window.corvekKeys.advance(el);
      if (wanted(document.activeElement)) show(document.activeElement);
      else hide();
      return;
    }
    write(el, k, units);
  }

  function write(el, k, units) {
    let text = k === "␣" ? " " : k;
    if (capital && text.length === 1) {
      text = text.toUpperCase();
      capital = false;
    }
    const a = el.selectionStart;
    const b = el.selectionEnd;
    if (k === "⌫") el.setRangeText("", a === b ? Math.max(0, a - 1) : a, b, "end");
    else if (units.includes(k)) el.value = el.value.replace(/[^\d.,/\- ].*$/, "").trimEnd() + " " + k;
    else el.setRangeText(text, a, b, "end");
    el.dispatchEvent(new Event("input", { bubbles: true }));
    // A value set by script gives no change event of its own when the field is left.
    const changed = () => el.dispatchEvent(new Event("change", { bubbles: true }));
    el.addEventListener("blur", changed, { once: true });
  }

  document.addEventListener("pointerdown", (e) => {
    byPointer = true;
    if (e.target.closest("#pad")) return;
    if (!wanted(e.target.closest("input, textarea"))) hide();
  });
  document.addEventListener("focusin", (e) => {
    if (wanted(e.target)) {
      if (byPointer) show(e.target);
    } else hide();
    byPointer = false;
  });

  window.corvekPad = { hide, pointed: () => byPointer };
})();
