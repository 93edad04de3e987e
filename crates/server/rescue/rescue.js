const said = document.getElementById("said");
const buttons = [...document.querySelectorAll("button")];

async function open() {
  for (;;) {
    await new Promise((done) => setTimeout(done, 300));
    const answer = await fetch("/api/health").catch(() => null);
    if (answer?.ok) return location.replace("/");
  }
}

for (const button of buttons) {
  button.addEventListener("click", async () => {
    for (const other of buttons) other.disabled = true;
    said.textContent = "One moment …";
    try {
      const answer = await fetch("/api/rescue", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ choice: button.dataset.choice }),
      });
      if (answer.ok) return open();
      said.textContent = (await answer.json()).detail;
    } catch {
      said.textContent = "Bodega does not answer. Is it still running?";
    }
    for (const other of buttons) other.disabled = false;
  });
}
