import { say } from "~/ui/toast";
import { watchForUpdate } from "./update.client";

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
