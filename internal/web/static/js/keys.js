// Keys: stations, parts, the next open thing; Enter that saves and goes on, so
// that a caliper that types fills a sheet; arrows that move a choice.
(function () {
  "use strict";

  const typing = (el) => el && ["INPUT", "TEXTAREA", "SELECT"].includes(el.tagName);
  const singleKeys = () => localStorage.getItem("corvek:keys") !== "off";

  // advance saves what stands in a field and goes to the next one that shows.
  function advance(el) {
    const fields = "main input[data-field]:not([readonly]), main textarea[data-field]:not([readonly])";
    const seen = { checkOpacity: false, contentVisibilityAuto: true };
    const all = [...document.querySelectorAll(fields)].filter((x) => x === el || x.checkVisibility(seen));
    const next = all[all.indexOf(el) + 1];
    // Leaving the field saves it; one that is left for nothing is left all the same.
    if (!next) {
      el.blur();
      return;
    }
    next.focus();
    if (next.select) next.select();
  }

  function follow(e, query) {
    const a = document.querySelector(query);
    if (!a) return;
    e.preventDefault();
    location.href = a.getAttribute("href");
  }

  function inField(e, el) {
    if (e.key === "Escape") {
      el.blur();
      window.corvekPad.hide();
      return;
    }
    if (e.key !== "Enter") return;
    if (el.id === "find" && el.value.trim() !== "") {
      e.preventDefault();
      openFound();
      return;
    }
    // Shift and Enter give a new line of a longer text.
    if (el.dataset.field && el.tagName !== "SELECT" && !e.shiftKey) {
      e.preventDefault();
      advance(el);
    }
  }

  // openFound opens the first thing that was found.
  function openFound() {
    const first = [...document.querySelectorAll("[data-found]")].find((x) => x.checkVisibility());
    if (first) (first.matches("a") ? first : first.querySelector("a")).click();
  }

  // inGroup moves an arrow from one choice to the next one of its group.
  function inGroup(e, el) {
    const step = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key];
    const group = el && el.closest && el.closest('[role="group"], [role="tablist"], .segs, .chips');
    if (!step || !group || !el.matches("button, a")) return false;
    const all = [...group.querySelectorAll("button:not([disabled]), a")];
    const next = all[(all.indexOf(el) + step + all.length) % all.length];
    e.preventDefault();
    next.focus();
    return true;
  }

  function onThing(e, el) {
    const d = (el && el.dataset) || {};
    const enter = e.key === "Enter" || e.key === " ";
    if (d.leaf !== undefined) {
      const word = { g: "goes", d: "drags", s: "stops", Backspace: "", Delete: "" }[e.key];
      if (word === undefined) return false;
      e.preventDefault();
      window.corvek.save(d.set, word, d.base || "");
      return true;
    }
    if (el && el.tagName === "g" && d.set && enter) {
      e.preventDefault();
      window.corvekTaps.tapped({ target: el, preventDefault() {} });
      return true;
    }
    if (d.flip !== undefined && enter) {
      e.preventDefault();
      window.corvekTaps.flip(el);
      return true;
    }
    if (d.shot !== undefined) return window.corvekTaps.move(e, el);
    return false;
  }

  function onPage(e) {
    if (e.key === "ArrowLeft") return follow(e, "[data-prev]");
    if (e.key === "ArrowRight") return follow(e, "[data-succ]");
    if (e.key === "/") return find(e);
    if (!singleKeys()) return;
    if (/^[1-9]$/.test(e.key)) follow(e, '[data-station="' + e.key + '"]');
    else if (e.key === "n") follow(e, "[data-next-stop]");
    else if (e.key === "?") window.corvekTaps.act("help");
    else if (e.key === "u") {
      const inch = document.querySelector("[data-do=units][data-value=in][aria-pressed=true]");
      window.corvekTaps.act("units", inch ? "mm" : "in");
    }
  }

  // find puts the caret into the page's own search, else into that of the board.
  function find(e) {
    e.preventDefault();
    const field = document.querySelector("#find, [data-find-here]");
    if (field) {
      field.focus();
      field.select();
    } else location.href = "/jobs#find";
  }

  document.addEventListener("keydown", (e) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const el = document.activeElement;
    if (typing(el)) return inField(e, el);
    if (document.getElementById("help").open) return;
    if (inGroup(e, el) || onThing(e, el)) return;
    onPage(e);
  });

  window.corvekKeys = { advance, singleKeys };
})();
