export const loader = () => Response.json({ status: "ok" });
