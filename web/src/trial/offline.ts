/** Let this page open again without the server: what it loaded is kept on the tablet. */
export async function keepAtHand() {
  if (!("serviceWorker" in navigator)) return;
  try {
    await navigator.serviceWorker.register("/sw.js");
    const worker = (await navigator.serviceWorker.ready).active;
    const loaded = performance
      .getEntriesByType("resource")
      .map((one) => new URL(one.name))
      .filter((one) => one.origin === location.origin && one.pathname.startsWith("/static/"))
      .map((one) => one.pathname);
    worker?.postMessage({ keep: [...new Set(["/", "/api/session", ...loaded])] });
  } catch {
    // a browser that allows none keeps what is typed all the same, as long as the page stays open
  }
}

/** Nothing of the person who signs out stays at hand. */
export function forget() {
  void navigator.serviceWorker?.getRegistration().then((one) => one?.active?.postMessage({ forget: true }));
}
