// Drafts: what was typed and is not kept by the server yet stays in this browser, so
// that a reload, a wrong unit or a stopped server loses nothing.
document.addEventListener("alpine:init", () => {
  const head = () => "draft:" + (document.body.dataset.tag || "") + ":";

  Alpine.store("drafts", {
    get(field) {
      try {
        return JSON.parse(localStorage.getItem(head() + field) || "null");
      } catch {
        return null;
      }
    },
    put(field, draft) {
      localStorage.setItem(head() + field, JSON.stringify(draft));
    },
    drop(field) {
      localStorage.removeItem(head() + field);
    },
    // here are the fields of this job that have one.
    here() {
      const all = Object.keys(localStorage).filter((k) => k.startsWith(head()));
      return all.map((k) => k.slice(head().length));
    },
    // count is how many are kept in this browser, of all jobs.
    count() {
      return Object.keys(localStorage).filter((k) => k.startsWith("draft:")).length;
    },
  });
});
