// The shell: what is typed becomes a draft and is saved when the field is left;
// forms are sent without leaving the page.
(function () {
  "use strict";

  const typing = (el) => el && ["INPUT", "TEXTAREA", "SELECT"].includes(el.tagName);

  function typed(e) {
    const el = e.target;
    if (!el.dataset || !el.dataset.field) return;
    const draft = { value: el.value, base: el.dataset.base, unit: el.dataset.unit || "" };
    window.corvek.drafts.put(el.dataset.field, draft);
    el.classList.add("unsaved");
    window.corvek.stale(el);
  }

  // A figure of the plan is saved with the one that was read beside it.
  function savePlanned(el) {
    const row = el.value.trim() && el.closest("tr");
    if (!row || el.closest(".skip")) return;
    for (const p of row.querySelectorAll("[data-planned]"))
      if (p !== el && p.value.trim()) window.corvek.save(p.dataset.field, p.value, "", p.dataset.unit);
  }

  function changed(e) {
    const el = e.target;
    if (el.dataset && "send" in el.dataset && el.value) return el.form.requestSubmit();
    if (!el.dataset || !el.dataset.field) return;
    if (el.value.trim() === el.dataset.base) {
      window.corvek.drafts.drop(el.dataset.field);
      el.classList.remove("unsaved");
      return;
    }
    savePlanned(el);
    window.corvek.save(el.dataset.field, el.value, el.dataset.base, el.dataset.unit);
  }

  // A plain form that is under way is not sent again.
  function rest(e) {
    if (e.target.method !== "post" || e.defaultPrevented) return;
    if (e.target.dataset.sending) e.preventDefault();
    e.target.dataset.sending = "yes";
  }

  // A page that Back brings to life again can be sent again.
  function woken() {
    for (const form of document.querySelectorAll("form[data-sending]")) delete form.dataset.sending;
  }

  function sent(e) {
    if (e.target.hasAttribute("data-find-jobs")) e.preventDefault();
    if (!e.target.hasAttribute("data-act")) return rest(e);
    e.preventDefault();
    window.corvek.submit(e.target, e.submitter);
  }

  // The chosen part is brought into view on a long line and in a long list.
  function intoView() {
    document.querySelector(".decide > .sel")?.scrollIntoView({ block: "nearest" });
    const box = document.querySelector(".line-box");
    const sel = box && box.querySelector(".lp.sel .hit");
    if (!sel) return;
    const b = box.getBoundingClientRect();
    const s = sel.getBoundingClientRect();
    if (s.left < b.left || s.right > b.right) box.scrollLeft += s.left - b.left - b.width / 2;
  }

  document.addEventListener("input", typed);
  document.addEventListener("change", changed);
  document.addEventListener("submit", sent);
  window.addEventListener("pageshow", woken);
  window.addEventListener("focus", () => {
    if (document.body.dataset.tag && !typing(document.activeElement)) window.corvek.refresh();
  });
  document.addEventListener("DOMContentLoaded", () => {
    window.corvek.restore();
    intoView();
    if (location.hash === "#find") document.getElementById("find")?.focus();
  });
})();
