// Finding: the board asks the server as one types, lists that are whole on the
// page are sifted here, and a name is offered from what the shop knows.
(function () {
  "use strict";

  const words = (text) => text.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (hay, wanted) => wanted.every((w) => hay.toLowerCase().includes(w));
  let later;

  // soon waits for a pause in typing; what was asked for before it is out of date.
  function soon(act) {
    window.corvek.outdated();
    clearTimeout(later);
    later = setTimeout(act, 200);
  }

  // jobs lets the server look through all jobs; the address carries the words.
  function jobs(input) {
    soon(() => {
      const query = input.value.trim() ? "?" + new URLSearchParams({ find: input.value.trim() }) : "";
      history.replaceState(null, "", "/jobs" + query);
      window.corvek.refresh();
    });
  }

  // sift hides what does not hold the words.
  function sift(text) {
    const wanted = words(text);
    for (const item of document.querySelectorAll("[data-find]"))
      item.hidden = !holds(item.dataset.find, wanted);
    const none = document.getElementById("found-none");
    if (none) none.hidden = [...document.querySelectorAll("[data-find]")].some((x) => !x.hidden);
    for (const bay of document.querySelectorAll(".bay")) {
      bay.hidden = ![...bay.querySelectorAll("[data-find]")].some((x) => !x.hidden);
    }
  }

  // marks lets the server look through all marks there are, not only those shown.
  function marks(input) {
    soon(() => {
      const query = new URLSearchParams(location.search);
      if (input.value.trim()) query.set("mark", input.value.trim());
      else query.delete("mark");
      history.replaceState(null, "", location.pathname + "?" + query);
      window.corvek.refresh();
    });
  }

  // suggest offers names that hold what is typed.
  function suggest(input) {
    soon(async () => {
      const box = document.querySelector('[data-suggestions="' + input.name + '"]');
      let names = [];
      try {
        const url = input.dataset.suggest + "?" + new URLSearchParams({ find: input.value });
        const res = await fetch(url, { headers: { Accept: "application/json" } });
        if (res.ok) names = (await res.json()).customers;
      } catch {
        return; // a name can be typed without a suggestion
      }
      box.replaceChildren(
        ...names.map((name) => {
          const b = document.createElement("button");
          b.type = "button";
          b.className = "chip";
          b.dataset.fill = input.name;
          b.dataset.value = name;
          b.textContent = name;
          return b;
        }),
      );
    });
  }

  // live works a calculator out as one types; its address carries the inputs.
  function live(form) {
    soon(() => {
      const given = [...new FormData(form)].filter(([, v]) => v !== "");
      history.replaceState(null, "", form.getAttribute("action") + "?" + new URLSearchParams(given));
      window.corvek.refresh();
    });
  }

  document.addEventListener("input", (e) => {
    const el = e.target;
    if (el.form && el.form.hasAttribute("data-find-jobs")) jobs(el);
    else if (el.id === "find") sift(el.value);
    if (el.id === "board-find") marks(el);
    if (el.dataset.suggest) suggest(el);
    if (el.form && el.form.hasAttribute("data-live")) live(el.form);
  });
})();
