// Form: is sent without leaving the page, once; what is wrong with it stands at its fields.
Alpine.data("form", () => ({
  errors: {},
  sending: false,

  init() {
    // The token that a form bears for a browser without scripts is made anew at each sending.
    this.$root.querySelector("[name=once]")?.setAttribute("value", "");
  },

  said(el) {
    return this.errors[el.dataset.err] || "";
  },

  async send(e) {
    e.preventDefault();
    const form = this.$root;
    if (this.sending) return;
    form.toggleAttribute("data-sending", (this.sending = true));
    this.errors = {};
    Alpine.store("page").acted(form);
    const token = form.querySelector("[name=once]");
    if (token) token.value = token.value || crypto.getRandomValues(new Uint32Array(4)).join("-");
    const fault = await Alpine.store("sent").submit(form, e.submitter);
    form.toggleAttribute("data-sending", (this.sending = false));
    if (token && !fault?.text.includes("does not answer")) token.value = "";
    if (!fault) return;
    const places = [...form.querySelectorAll("[data-err]")];
    const own = places.find((x) => x.dataset.err === fault.field);
    const at = own || places[0];
    if (at) this.errors = { [at.dataset.err]: own || !fault.field ? fault.text : fault.field + ": " + fault.text };
  },
  // chosen sends the form when a file or an answer of a list was chosen.
  chosen(e) {
    if (e.target.value) this.$root.requestSubmit();
  },
  // read takes a file's text into a field.
  async read(e) {
    const area = this.$root.querySelector("#" + e.target.dataset.into);
    if (!e.target.files.length) return;
    area.value = await e.target.files[0].text();
    e.target.value = "";
    area.focus();
  },
}));
