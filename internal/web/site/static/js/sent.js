// Sent: what goes to the server, one after the other, each answered with what it made of
// the page that shows. What cannot be sent waits and is sent again.
const page = () => Alpine.store("page");
const drafts = () => Alpine.store("drafts");
const clock = () => new Date().toTimeString().slice(0, 8);
const away = "the shop's server does not answer; ";
let last = Promise.resolve(); // the end of the queue

Alpine.store("sent", {
  words: "", // the line at the foot
  state: "",
  faults: {}, // what was refused, by field
  clashes: [], // what somebody else had changed meanwhile
  under: 0, // sent or waiting in line

  idle() {
    return this.under === 0 && !page().asking;
  },

  say(words, state) {
    this.words = words;
    this.state = state || "";
  },
  // post sends something with the page that shows, and asks who is there where the server does.
  async post(url, body, address) {
    const headers = {
      "X-CSRF-Token": document.querySelector("meta[name=csrf]").content,
      "X-Requested-With": "corvek",
      "X-Corvek-Drafts": String(drafts().count()),
    };
    if (address) headers["X-Corvek-Page"] = address;
    if (address) headers["X-Corvek-Has"] = page().has();
    if (!(body instanceof FormData)) body = new URLSearchParams(body);
    const res = await fetch(url, { method: "POST", body, headers });
    const json = await res.json().catch(() => ({})); // a proxy's page: the status tells enough
    const asked = res.status === 403 && json.error && json.error.confirm;
    if (asked && (await Alpine.store("again").ask())) return this.post(url, body, address);
    return { status: res.status, ok: res.ok, json, error: json.error || {} };
  },
  // inLine does one thing after all that were asked for before it.
  inLine(act) {
    this.under++;
    const mine = last.then(act).finally(() => this.under--);
    last = mine.catch(() => {});
    return mine;
  },
  // write sets a field: value is what it should be, base what stood there when it was
  // meant. Where it leads on, go is the address of the page that comes next.
  write(want) {
    drafts().put(want.field, { ...want, go: undefined, waiting: true });
    return this.inLine(() => this.writeNow(want));
  },

  async writeNow(want) {
    const { field, value, base, unit, go } = want;
    this.say("saving…");
    let answer;
    try {
      const body = { field, value, base, unit: unit || "", ...want.also };
      const address = this.under > 1 && !go ? "" : go || page().here();
      answer = await this.post("/jobs/" + document.body.dataset.tag + "/set", body, address);
    } catch {
      this.say(away + "kept here and sent when it does", "wait");
      return false;
    }
    if (answer.status === 503) {
      const full = (answer.error.text || "").includes("no room");
      this.say((full ? "no room on the store's disk" : "the store is coming back") + "; kept here", "wait");
      return false;
    }
    if (!answer.ok) return this.refused(want, answer);
    const now = drafts().get(field);
    if (!now || now.value === value) drafts().drop(field);
    this.settled(want);
    this.say("saved " + clock(), "ok");
    for (const el of document.querySelectorAll(`[data-field="${CSS.escape(field)}"]`))
      Alpine.$data(el).kept(value, answer.json.value);
    if (this.under <= 1 || go) await page().take(answer.json.page, go);
    return true;
  },

  async refused(want, answer) {
    const again = answer.status === 401 ? "sign in again; what you typed is kept" : "";
    const text = answer.error.text || again || "not saved; what you typed is kept";
    this.settled(want);
    if (want.typed) drafts().put(want.field, { ...want, waiting: false, error: text });
    else drafts().drop(want.field);
    this.faults[want.field] = text;
    this.say("not saved: " + text, "bad");
    const { theirs, label } = answer.error;
    if (answer.status === 409) this.clashes.push({ ...want, text, theirs, label });
    if (this.under <= 1) await page().load();
    return false;
  },

  settled({ field }) {
    this.clashes = this.clashes.filter((c) => c.field !== field);
    delete this.faults[field];
  },
  // choose says of what two set at once whose it is to be.
  choose(clash, mine) {
    this.settled(clash);
    drafts().drop(clash.field);
    if (mine) this.write({ ...clash, base: clash.theirs, also: undefined });
    else page().load();
  },
  // submit sends a form; it gives the fault, or null when it was done.
  submit(form, button) {
    return this.inLine(() => this.submitNow(form, button));
  },

  async submitNow(form, button) {
    const data = new FormData(form, button || undefined);
    let answer;
    try {
      const body = form.enctype === "multipart/form-data" ? data : new URLSearchParams(data);
      answer = await this.post(form.action, body, page().here());
    } catch {
      this.say(away + "nothing was lost, try again", "wait");
      return { text: away + "try again" };
    }
    if (!answer.ok) {
      const text = answer.error.text || "not done";
      this.say(text, "bad");
      return { field: answer.error.field || "", text };
    }
    this.say("saved " + clock(), "ok");
    if (answer.json.go && !form.hasAttribute("data-stay")) {
      location.href = answer.json.go;
      return null;
    }
    for (const el of form.querySelectorAll("input:not([type=hidden]), textarea"))
      if (!["checkbox", "radio"].includes(el.type)) el.value = "";
    await page().take(answer.json.page);
    return null;
  },
  // again sends what waits.
  async again() {
    if (this.under) return;
    for (const field of drafts().here()) {
      const d = drafts().get(field);
      if (d && d.waiting && !(await this.write({ ...d, field }))) return;
    }
  },
});
setInterval(() => Alpine.store("sent").again(), 4000);
