// Again: after a rest the server asks who is there before it takes an act that somebody
// stands for. Whoever waits for the answer goes on with what was typed.
Alpine.store("again", {
  answer: null, // of the one question that is open
  waiting: null,
  ask() {
    if (!document.getElementById("again")) return Promise.resolve(false);
    this.waiting ||= new Promise((answer) => {
      this.answer = answer;
      window.dispatchEvent(new CustomEvent("ask-again"));
    }).finally(() => (this.waiting = null));
    return this.waiting;
  },
});

Alpine.data("again", () => ({
  fault: "",
  said: false,
  ask() {
    this.said = false;
    this.fault = this.$refs.secret.value = "";
    this.$root.showModal();
    this.$refs.secret.focus();
  },
  async send() {
    try {
      const answer = await Alpine.store("sent").post("/confirm", { still_me: this.$refs.secret.value });
      this.fault = answer.ok ? "" : answer.error.text || "not taken; try again";
    } catch {
      this.fault = "the shop's server does not answer; try again";
    }
    this.said = this.fault === "";
    if (this.said) this.$root.close();
    else this.$refs.secret.select();
  },
  closed() {
    Alpine.store("again").answer(this.said);
  },
}));
