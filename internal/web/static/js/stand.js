// The strip chart of a stand: figures as they come from the server, ten times a second,
// and the key that stops the drive.
(function () {
  "use strict";

  const kept = 60; // seconds that are drawn
  const lostAfter = 1000; // ms without a frame
  let source = null;
  let box = null;
  let series = null; // at, and a row a figure
  let plots = [];
  let last = 0;

  function say(words, state) {
    const el = box && box.querySelector(".live-state");
    if (!el || el.textContent === words) return;
    el.textContent = words;
    el.dataset.state = state;
    box.dataset.state = state;
  }

  // colour resolves one of the page's colours: a canvas knows nothing of themes.
  function colour(name) {
    const probe = document.createElement("i");
    probe.style.color = "var(" + name + ")";
    box.append(probe);
    const resolved = getComputedStyle(probe).color;
    probe.remove();
    return resolved;
  }

  // build makes a strip a figure, all over one time.
  function build(channels) {
    const strips = document.getElementById("live-strips");
    strips.replaceChildren();
    plots = [];
    const drawn = channels.filter((c) => series[c.code] && c.code !== "speed");
    for (const c of drawn) {
      const el = document.createElement("div");
      strips.append(el);
      const plot = new window.uPlot(
        {
          width: Math.max(200, strips.clientWidth),
          height: 64,
          legend: { show: false },
          cursor: { show: false },
          scales: { x: { time: false }, y: { range: (u, lo, hi) => [Math.min(0, lo), hi > 0 ? hi * 1.1 : 1] } },
          axes: [
            { show: false },
            {
              stroke: colour("--ink2"),
              grid: { stroke: colour("--line") },
              size: 46,
              space: 18,
              label: c.unit,
              labelSize: 16,
            },
          ],
          series: [{}, { stroke: colour("--petrol"), width: 2, points: { show: false } }],
        },
        [[], []],
        el
      );
      plots.push({ code: c.code, plot });
    }
  }

  function draw() {
    const now = series.at.length ? series.at[series.at.length - 1] : 0;
    const x = series.at.map((ms) => (ms - now) / 1000);
    for (const p of plots) p.plot.setData([x, series[p.code]]);
  }

  function trim() {
    const now = series.at[series.at.length - 1];
    let old = 0;
    while (old < series.at.length && now - series.at[old] > kept * 1000) old++;
    if (!old) return;
    for (const k of Object.keys(series)) series[k].splice(0, old);
  }

  function onChannels(e) {
    const told = JSON.parse(e.data);
    series = told.history.at ? told.history : { at: [] };
    for (const el of box.querySelectorAll("[data-channel]")) {
      if (!series[el.dataset.channel]) series[el.dataset.channel] = series.at.map(() => null);
    }
    build(told.channels);
    if (series.at.length) {
      trim();
      draw();
    }
  }

  function onFrame(e) {
    const f = JSON.parse(e.data);
    last = Date.now();
    say(f.left ? f.words + ", " + clock(f.left) + " left" : f.words, f.state);
    box.dataset.steady = f.steady ? "yes" : "no";
    box.dataset.step = f.step || "";
    const before = series.at[series.at.length - 1];
    if (before && f.at - before > lostAfter) gap(f.at - 1);
    series.at.push(f.at);
    for (const k of Object.keys(series)) {
      if (k !== "at") series[k].push(f.values[k] === undefined ? null : f.values[k]);
    }
    trim();
    for (const el of box.querySelectorAll("[data-channel]")) {
      const v = f.values[el.dataset.channel];
      el.querySelector("b").textContent = v === undefined || v === null ? "–" : v;
    }
    draw();
  }

  // gap leaves a hole in the strips where nothing was heard.
  function gap(at) {
    for (const k of Object.keys(series)) series[k].push(k === "at" ? at : null);
  }

  function clock(s) {
    return Math.floor(s / 60) + ":" + String(s % 60).padStart(2, "0");
  }

  // follow opens the stream of the stand that shows, and ends that of one that does not.
  function follow() {
    const el = document.querySelector("[data-live]");
    if (el === box && source) return;
    if (source) source.close();
    source = null;
    box = el;
    if (!el) return;
    last = Date.now();
    source = new EventSource(el.dataset.live);
    source.addEventListener("channels", onChannels);
    source.addEventListener("frame", onFrame);
  }

  setInterval(() => {
    if (box && source && Date.now() - last > lostAfter && box.dataset.state !== "lost") {
      say("NO SIGNAL: nothing has come for a second", "lost");
    }
  }, 200);

  document.addEventListener("corvek:fresh", follow);
  // Escape lets the drive go wherever the focus is, and asks nothing first.
  document.addEventListener(
    "keydown",
    (e) => {
      const stop = e.key === "Escape" && document.getElementById("stop-drive");
      const state = box && box.dataset.state;
      if (stop && (state === "ramping" || state === "holding")) stop.click();
    },
    true
  );
  document.addEventListener("change", (e) => {
    if (e.target.matches("select[data-go]")) e.target.form.requestSubmit();
  });
  follow();
})();
