// Drafts: what was typed and is not kept by the server yet stays in this browser, so
// that a reload, a wrong unit or a stopped server loses nothing.
const head = () => "draft:" + (document.body.dataset.tag || "") + ":";
const kept = (begin) => Object.keys(localStorage).filter((k) => k.startsWith(begin));

Alpine.store("drafts", {
  get: (field) => JSON.parse(localStorage.getItem(head() + field) || "null"),
  put: (field, draft) => localStorage.setItem(head() + field, JSON.stringify(draft)),
  drop: (field) => localStorage.removeItem(head() + field),
  here: () => kept(head()).map((k) => k.slice(head().length)), // fields of this job that have one
  count: () => kept("draft:").length, // in this browser, of all jobs
});
