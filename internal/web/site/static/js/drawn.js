// Drawn: a piece of a stack that is turned over in the text it stands for, and a mark that
// is pinned on a picture.
Alpine.data("turned", () => ({
  flip(e) {
    const piece = e.target.closest("[data-flip]");
    if (!piece) return;
    const input = document.getElementById("in-" + piece.dataset.in);
    const other = { "<": ">", ">": "<", f: "s", s: "f" };
    const text = input.value.replace(/\s+/g, "");
    const i = Number(piece.dataset.flip);
    input.value = text.slice(0, i) + (other[text[i].toLowerCase()] || text[i]) + text.slice(i + 1);
    input.dispatchEvent(new Event("input", { bubbles: true }));
  },
}));

// Shot pins a mark at a share of the picture's width and height.
Alpine.data("shot", () => ({
  form() {
    return document.getElementById("markform");
  },

  tap(e) {
    const shot = e.target.closest("[data-shot]");
    if (!shot || !this.form()) return;
    const b = shot.getBoundingClientRect();
    this.pin(shot, (e.clientX - b.left) / b.width, (e.clientY - b.top) / b.height);
    if (e.pointerType) document.getElementById("mark-note").focus({ preventScroll: true });
  },
  // move pins it a little further.
  move(e) {
    const shot = e.target.closest("[data-shot]");
    const way = { ArrowLeft: [-0.02, 0], ArrowRight: [0.02, 0], ArrowUp: [0, -0.02], ArrowDown: [0, 0.02] }[e.key];
    if (!shot || !way || !this.form()) return;
    e.preventDefault();
    e.stopPropagation();
    const at = this.form().elements;
    const where = (v) => (v === "" ? 0.5 : Number(v));
    this.pin(shot, where(at.x.value) + way[0], where(at.y.value) + way[1]);
  },

  pin(shot, x, y) {
    const box = shot.viewBox.baseVal;
    const within = (v) => Math.min(1, Math.max(0, v));
    this.form().elements.x.value = within(x).toFixed(4);
    this.form().elements.y.value = within(y).toFixed(4);
    const dot = shot.querySelector(".shot-n");
    dot.setAttribute("cx", within(x) * box.width);
    dot.setAttribute("cy", within(y) * box.height);
    document.getElementById("shot-hint").textContent = "Now say what is seen there.";
  },
}));
