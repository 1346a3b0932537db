// Sent: what goes to the server, one after the other, each answered with what it made of
// the page that shows. What cannot be sent waits and is sent again.
document.addEventListener("alpine:init", () => {
  const page = () => Alpine.store("page");
  const drafts = () => Alpine.store("drafts");
  const clock = () => new Date().toTimeString().slice(0, 8);
  const away = "the shop's server does not answer; ";
  let last = Promise.resolve(); // the end of the queue

  async function post(url, body, address, held) {
    const headers = {
      "X-CSRF-Token": document.querySelector("meta[name=csrf]").content,
      "X-Requested-With": "corvek",
      "X-Corvek-Drafts": String(drafts().count()),
    };
    if (address) {
      headers["X-Corvek-Page"] = address;
      headers["X-Corvek-Has"] = page().has();
    }
    const res = await fetch(url, { method: "POST", body, headers });
    let json = {};
    try {
      json = await res.json();
    } catch {
      // A proxy's page: the status tells enough.
    }
    const asked = res.status === 403 && json.error && json.error.confirm;
    if (asked && (await Alpine.store("again").ask())) return post(url, body, address, held);
    return { status: res.status, ok: res.ok, json, error: json.error || {} };
  }

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
      if (want.keep !== false) drafts().put(want.field, { ...want, waiting: true });
      return this.inLine(() => this.writeNow(want));
    },

    async writeNow(want) {
      const { field, value, base, unit, go } = want;
      this.say("saving…");
      let answer;
      try {
        const body = new URLSearchParams({ field, value, base, unit: unit || "" });
        if (want.also) for (const [k, v] of Object.entries(want.also)) body.set(k, v);
        const address = this.under > 1 && !go ? "" : go || page().here();
        answer = await post("/jobs/" + document.body.dataset.tag + "/set", body, address);
      } catch {
        this.say(away + "kept here and sent when it does", "wait");
        return false;
      }
      if (answer.status === 503) {
        const full = (answer.error.text || "").includes("no room");
        this.say((full ? "no room on the store's disk" : "the store is coming back") + "; kept here, and sent later", "wait");
        return false;
      }
      if (!answer.ok) return this.refused(want, answer);
      const now = drafts().get(field);
      if (!now || now.value === value) drafts().drop(field);
      delete this.faults[field];
      this.clashes = this.clashes.filter((c) => c.field !== field);
      this.say(answer.json.words || "saved " + clock(), "ok");
      window.dispatchEvent(new CustomEvent("kept", { detail: { field, sent: value, stored: answer.json.value } }));
      if (this.under <= 1 || go) await page().take(answer.json.page, go);
      return true;
    },

    async refused(want, answer) {
      const again = answer.status === 401 ? "sign in again; what you typed is kept" : "";
      const text = answer.error.text || again || "not saved; what you typed is kept";
      const typed = want.keep !== false && want.typed;
      if (typed) drafts().put(want.field, { ...want, waiting: false, error: text });
      else drafts().drop(want.field);
      this.faults[want.field] = text;
      this.say(typed ? "not saved: " + text : text, "bad");
      if (answer.status !== 409) return false;
      const e = answer.error;
      this.clashes = this.clashes.filter((c) => c.field !== want.field);
      this.clashes.push({ ...want, text, theirs: e.theirs, label: e.label, theirWords: e.their_words, myWords: e.my_words });
      await page().load();
      return false;
    },

    keepTheirs(clash) {
      this.settled(clash);
      drafts().drop(clash.field);
      page().load();
    },

    useMine(clash) {
      this.settled(clash);
      this.write({ ...clash, base: clash.theirs, also: undefined });
    },

    settled(clash) {
      this.clashes = this.clashes.filter((c) => c.field !== clash.field);
      delete this.faults[clash.field];
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
        answer = await post(form.action, body, page().here());
      } catch {
        this.say(away + "nothing was lost, try again", "wait");
        return { text: away + "try again" };
      }
      if (!answer.ok) {
        const text = answer.error.text || "not done";
        this.say(text, "bad");
        return { field: answer.error.field || "", text };
      }
      this.say(answer.json.words || "saved " + clock(), "ok");
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
});
