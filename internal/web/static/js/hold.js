// The clock of a hold: how long a step of the test has still to be held. What is
// kept is the moment on the server; this only shows it.
(function () {
  "use strict";

  function left(ms) {
    const s = Math.ceil(ms / 1000);
    return Math.floor(s / 60) + ":" + String(s % 60).padStart(2, "0");
  }

  function show() {
    for (const el of document.querySelectorAll("[data-until]")) {
      const ms = Date.parse(el.dataset.until) - Date.now();
      el.textContent = ms > 0 ? "holds: " + left(ms) + " left" : "held long enough: read it";
      el.classList.toggle("ready", ms <= 0);
    }
  }

  show();
  setInterval(show, 500);
})();
