// Kit: a piece is dragged to its place, which does what a tap on its own form does.
const type = "text/x-piece";
const place = (e) => e.target.closest && e.target.closest("[data-drop]");

Alpine.data("kit", () => ({
  take(e) {
    const piece = e.target.closest("[data-drag]");
    if (piece) e.dataTransfer.setData(type, piece.dataset.drag);
  },
  over(e) {
    const at = place(e);
    for (const el of document.querySelectorAll(".drop")) if (el !== at) el.classList.remove("drop");
    if (!at || !e.dataTransfer.types.includes(type)) return;
    e.preventDefault();
    at.classList.add("drop");
  },
  drop(e) {
    const at = place(e);
    const piece = e.dataTransfer.getData(type);
    const form = at && piece && document.getElementById("join-" + piece);
    if (!form) return;
    e.preventDefault();
    at.classList.remove("drop");
    form.querySelector("select[name=place], input[name=place]").value = at.dataset.drop;
    form.requestSubmit();
  },
}));
