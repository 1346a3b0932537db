// Stand: the strips of a stand's figures as they come, ten times a second, and the key that
// stops the drive.
const kept = 60; // seconds that are drawn
const lostAfter = 1000; // ms without a frame
const clock = (s) => Math.floor(s / 60) + ":" + String(s % 60).padStart(2, "0");

// colour resolves one of the page's colours: a canvas knows nothing of themes.
function colour(name) {
  const probe = document.body.appendChild(document.createElement("i"));
  probe.style.color = "var(" + name + ")";
  const resolved = getComputedStyle(probe).color;
  probe.remove();
  return resolved;
}

function strip(box, unit) {
  const y = { stroke: colour("--ink2"), grid: { stroke: colour("--line") }, size: 46, space: 18, labelSize: 16 };
  const options = {
    width: Math.max(200, box.clientWidth),
    height: 64,
    legend: { show: false },
    cursor: { show: false },
    scales: { x: { time: false }, y: { range: (u, lo, hi) => [Math.min(0, lo), hi > 0 ? hi * 1.1 : 1] } },
    axes: [{ show: false }, { ...y, label: unit }],
    series: [{}, { stroke: colour("--petrol"), width: 2, points: { show: false } }],
  };
  return new window.uPlot(options, [[], []], box.appendChild(document.createElement("div")));
}

Alpine.data("stand", () => ({
  words: "connecting",
  state: "",
  steady: "no",
  step: "",
  now: {}, // what is shown large, by figure
  init() {
    this.last = Date.now();
    this.source = Alpine.store("hears").line(this.$root.dataset.live, (source) => {
      source.addEventListener("channels", (e) => this.begin(JSON.parse(e.data)));
      source.addEventListener("frame", (e) => this.frame(JSON.parse(e.data)));
    });
    this.watch = setInterval(() => {
      if (Date.now() - this.last <= lostAfter) return;
      this.words = "NO SIGNAL: nothing has come for a second";
      this.state = "lost";
    }, 200);
  },
  destroy() {
    this.source.close();
    clearInterval(this.watch);
  },
  figure(el) { return this.now[el.dataset.channel] ?? "–"; },
  // begin makes a strip a figure, all over one time.
  begin(told) {
    this.series = told.history.at ? told.history : { at: [] };
    for (const el of this.$root.querySelectorAll("[data-channel]"))
      this.series[el.dataset.channel] ||= this.series.at.map(() => null);
    const box = document.getElementById("live-strips");
    box.replaceChildren();
    this.plots = told.channels
      .filter((c) => this.series[c.code] && c.code !== "speed")
      .map((c) => ({ code: c.code, plot: Alpine.raw(strip(box, c.unit)) }));
    if (this.series.at.length) this.draw();
  },
  frame(f) {
    if (!this.series) return;
    this.last = Date.now();
    this.words = f.left ? f.words + ", " + clock(f.left) + " left" : f.words;
    this.state = f.state;
    this.steady = f.steady ? "yes" : "no";
    this.step = f.step || "";
    this.now = f.values;
    const before = this.series.at.at(-1);
    if (before && f.at - before > lostAfter) this.push(f.at - 1, {}); // a hole where nothing was heard
    this.push(f.at, f.values);
    this.draw();
  },
  push(at, values) {
    for (const k of Object.keys(this.series)) this.series[k].push(k === "at" ? at : (values[k] ?? null));
  },
  draw() {
    const { at } = this.series;
    const now = at.at(-1);
    const old = at.findIndex((t) => now - t <= kept * 1000);
    for (const k of Object.keys(this.series)) this.series[k].splice(0, old);
    const x = at.map((ms) => (ms - now) / 1000);
    for (const p of this.plots) Alpine.raw(p).plot.setData([x, Alpine.raw(this.series[p.code])]);
  },
  // stop lets the drive go wherever the focus is, and asks nothing first.
  stop(e) {
    if (e.key === "Escape" && ["ramping", "holding"].includes(this.state))
      document.getElementById("stop-drive")?.click();
  },
}));
