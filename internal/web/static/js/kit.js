// Kit: a piece is dragged to its place, and a list is taken from a file.
(function () {
  "use strict";

  const type = "text/x-piece";

  function place(e) {
    return e.target.closest && e.target.closest("[data-drop]");
  }

  document.addEventListener("dragstart", (e) => {
    const piece = e.target.closest && e.target.closest("[data-drag]");
    if (piece) e.dataTransfer.setData(type, piece.dataset.drag);
  });

  document.addEventListener("dragover", (e) => {
    const at = place(e);
    for (const el of document.querySelectorAll(".drop")) if (el !== at) el.classList.remove("drop");
    if (!at || !e.dataTransfer.types.includes(type)) return;
    e.preventDefault();
    at.classList.add("drop");
  });

  // The piece's own form writes it, so that dragging does what a tap does.
  document.addEventListener("drop", (e) => {
    const at = place(e);
    const piece = e.dataTransfer.getData(type);
    const form = at && piece && document.getElementById("join-" + piece);
    if (!form) return;
    e.preventDefault();
    at.classList.remove("drop");
    form.querySelector("select[name=place], input[name=place]").value = at.dataset.drop;
    window.corvek.submit(form);
  });

  document.addEventListener("change", async (e) => {
    const into = e.target.dataset && e.target.dataset.into;
    if (!into || !e.target.files.length) return;
    const area = document.getElementById(into);
    area.value = await e.target.files[0].text();
    e.target.value = "";
    area.focus();
  });
})();
