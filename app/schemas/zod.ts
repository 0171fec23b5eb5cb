import { z } from "zod";

// The policy of content lets no text be run as code: in a page, Zod must not even try to.
if ("document" in globalThis || "WorkerGlobalScope" in globalThis) z.config({ jitless: true });

export { z };
