// Finding: a form whose answer comes as one types. The server looks; the address carries
// what was typed.
let later;

// soon waits for a pause in typing; what was asked for before it is out of date.
function soon(act) {
  Alpine.store("page").outdated();
  clearTimeout(later);
  later = setTimeout(act, 200);
}

Alpine.data("find", () => ({
  look(e) {
    const form = e.target.form;
    soon(() => {
      const query = new URLSearchParams([...new FormData(form)].filter(([, v]) => v.trim() !== ""));
      const address = (form.getAttribute("action") || location.pathname) + (query.size ? "?" + query : "");
      history.replaceState(null, "", address);
      Alpine.store("page").load(address);
    });
  },
  // first opens the first thing that was found.
  first() {
    const found = this.$root.querySelector("input").value.trim() && document.querySelector("[data-found]");
    if (found) (found.matches("a") ? found : found.querySelector("a"))?.click();
  },
}));

// Suggest offers names that hold what is typed.
Alpine.data("suggest", () => ({
  names: [],
  ask(e) {
    const url = e.target.dataset.suggest + "?" + new URLSearchParams({ find: e.target.value });
    const take = (answer) => (this.names = answer.customers);
    soon(() => fetch(url).then((res) => res.ok && res.json().then(take), () => {}));
  },
  take(name) {
    const input = this.$root.querySelector("[data-suggest]");
    input.value = name;
    input.focus();
  },
}));
