// Again: after a rest the server asks who is there before it takes an act that
// somebody stands for. Whoever waits for the answer goes on with what was typed.
(function () {
  "use strict";

  let waiting = null; // the one question that is open

  function ask() {
    const box = document.getElementById("again");
    if (!box) return Promise.resolve(false);
    if (!waiting) {
      waiting = new Promise((answer) => show(box, answer)).finally(() => {
        waiting = null;
      });
    }
    return waiting;
  }

  function show(box, answer) {
    const input = box.querySelector("input");
    const fault = box.querySelector(".f-e");
    let said = false;
    input.value = "";
    tell(fault, "");
    box.querySelector("form").onsubmit = async (e) => {
      e.preventDefault();
      const sent = await send(input.value);
      if (sent === "") {
        said = true;
        box.close();
        return;
      }
      tell(fault, sent);
      input.select();
    };
    box.querySelector("[data-do=not-me]").onclick = () => box.close();
    box.onclose = () => answer(said);
    box.showModal();
    input.focus();
  }

  function tell(fault, text) {
    fault.textContent = text;
    fault.classList.toggle("on", !!text);
  }

  // send gives what is wrong with the answer, "" for nothing.
  async function send(secret) {
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
  }

  // A link to the change of person comes back to where it was followed.
  document.addEventListener("click", (e) => {
    const link = e.target.closest("a[data-next]");
    if (link) link.href = "/change?next=" + encodeURIComponent(location.pathname + location.search);
  });

  window.corvekAgain = { ask };
})();
