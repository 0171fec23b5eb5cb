import { say } from "~/ui/toast";

/** Registers the offline worker in production; a new version waits for a word. */
export function registerOffline(): void {
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) return;
  const register = () => {
    navigator.serviceWorker
      .register("/sw.js")
      .then(watchForUpdate)
      .catch(() => say({ text: "This browser will not keep the application for use without network." }));
  };
  // The page may have loaded before this ran.
  if (document.readyState === "complete") register();
  else window.addEventListener("load", register, { once: true });
}

function watchForUpdate(registration: ServiceWorkerRegistration): void {
  registration.addEventListener("updatefound", () => {
    const fresh = registration.installing;
    fresh?.addEventListener("statechange", () => {
      if (fresh.state === "installed" && navigator.serviceWorker.controller) offerUpdate(fresh);
    });
  });
}

function offerUpdate(fresh: ServiceWorker): void {
  const run = () => {
    navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), {
      once: true,
    });
    fresh.postMessage({ type: "SKIP_WAITING" });
  };
  say({ text: "A new version is ready.", lasts: true, action: { label: "Change over", run } });
}
