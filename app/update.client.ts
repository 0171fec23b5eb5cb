import { say } from "~/ui/toast";

/** Offers a version that is ready, at each visit until it is taken: one that waited since the last too. */
export function watchForUpdate(registration: ServiceWorkerRegistration): void {
  if (registration.waiting && navigator.serviceWorker.controller) offerUpdate(registration.waiting);
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
