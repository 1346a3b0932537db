// Again: after a rest the server asks who is there before it takes an act that somebody
// stands for. Whoever waits for the answer goes on with what was typed.
document.addEventListener("alpine:init", () => {
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
      this.fault = "";
      this.$refs.secret.value = "";
      this.$root.showModal();
      this.$refs.secret.focus();
    },

    async send() {
      this.fault = await this.wrong(this.$refs.secret.value);
      this.said = this.fault === "";
      if (this.said) this.$root.close();
      else this.$refs.secret.select();
    },

    // wrong gives what is wrong with the answer, "" for nothing.
    async wrong(secret) {
      const token = document.querySelector("meta[name=csrf]").content;
      const headers = { "X-CSRF-Token": token, "X-Requested-With": "corvek" };
      try {
        const body = new URLSearchParams({ still_me: secret });
        const res = await fetch("/confirm", { method: "POST", headers, body });
        if (res.ok) return "";
        const json = await res.json();
        return (json.error && json.error.text) || "not taken; try again";
      } catch {
        return "the shop's server does not answer; try again";
      }
    },

    closed() {
      Alpine.store("again").answer(this.said);
    },
  }));
});
