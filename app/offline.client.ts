import { say } from "~/ui/toast";

/** Registers the offline worker in production; a new version waits for a word. */
export function registerOffline(): void {
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) return;
  window.addEventListener("load", () => {
    navigator.serviceWorker
      .register("/sw.js")
      .then((registration) => {
        registration.addEventListener("updatefound", () => {
          const fresh = registration.installing;
          fresh?.addEventListener("statechange", () => {
            if (fresh.state !== "installed" || !navigator.serviceWorker.controller) return;
            say({
              text: "A new version is ready.",
              lasts: true,
              action: {
                label: "Change over",
                run: () => {
                  fresh.postMessage({ type: "SKIP_WAITING" });
                  navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
                },
              },
            });
          });
        });
      })
      .catch(() => say({ text: "This browser will not keep the application for use without network." }));
  });
}
