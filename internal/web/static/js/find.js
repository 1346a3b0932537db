// Finding: the board asks the server as one types, lists that are whole on the page are
// sifted here, a name is offered from what the shop knows, a calculator works as one types.
document.addEventListener("alpine:init", () => {
  let later;

  // soon waits for a pause in typing; what was asked for before it is out of date.
  function soon(act) {
    Alpine.store("page").outdated();
    clearTimeout(later);
    later = setTimeout(act, 200);
  }

  // ask looks at the address again with other words in it.
  function ask(path, query) {
    const address = path + (String(query) ? "?" + query : "");
    history.replaceState(null, "", address);
    Alpine.store("page").load(address);
  }

  Alpine.data("find", () => ({
    // jobs lets the server look through all jobs.
    jobs(e) {
      const words = e.target.value.trim();
      soon(() => ask("/jobs", words ? new URLSearchParams({ find: words }) : ""));
    },

    // marks lets the server look through all marks there are, not only those shown.
    marks(e) {
      soon(() => {
        const query = new URLSearchParams(location.search);
        if (e.target.value.trim()) query.set("mark", e.target.value.trim());
        else query.delete("mark");
        ask(location.pathname, query);
      });
    },

    // live works a calculator out.
    live(e) {
      const form = e.target.form;
      soon(() => {
        const given = [...new FormData(form)].filter(([, v]) => v !== "");
        ask(form.getAttribute("action"), new URLSearchParams(given));
      });
    },

    // sift hides what does not hold the words.
    sift(e) {
      const wanted = e.target.value.toLowerCase().split(/\s+/).filter(Boolean);
      const all = [...document.querySelectorAll("[data-find]")];
      for (const item of all) {
        const hay = item.dataset.find.toLowerCase();
        item.hidden = !wanted.every((w) => hay.includes(w));
      }
      document.getElementById("found-none").hidden = all.some((x) => !x.hidden);
      for (const bay of document.querySelectorAll(".bay"))
        bay.hidden = ![...bay.querySelectorAll("[data-find]")].some((x) => !x.hidden);
    },
  }));

  // Suggest offers names that hold what is typed.
  Alpine.data("suggest", () => ({
    names: [],
    ask(e) {
      const input = e.target;
      soon(async () => {
        try {
          const url = input.dataset.suggest + "?" + new URLSearchParams({ find: input.value });
          const res = await fetch(url, { headers: { Accept: "application/json" } });
          if (res.ok) this.names = (await res.json()).customers;
        } catch {
          // A name can be typed without a suggestion.
        }
      });
    },
    take(name) {
      const input = this.$root.querySelector("[data-suggest]");
      input.value = name;
      input.focus();
    },
  }));
});
