import { index, layout, prefix, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  index("routes/jobs/route.tsx"),
  route("health", "routes/server/health.ts"),
  route("schema/:file", "routes/server/schema.ts"),
  route("demo/:name", "routes/server/demo.ts"),
  ...prefix("job/:jobId", [
    layout("routes/job/route.tsx", [
      index("routes/job/first.tsx"),
      route("survey", "routes/survey/route.tsx"),
      route("layout", "routes/layout/route.tsx"),
      route("prove", "routes/prove/route.tsx"),
      route("fit", "routes/fit/route.tsx"),
      route("parts", "routes/parts/route.tsx"),
      route("install", "routes/install/route.tsx"),
      route("bleed", "routes/bleed/route.tsx"),
      route("care", "routes/care/route.tsx"),
      route("print/:sheet", "routes/print/route.tsx"),
      route("owner", "routes/owner/route.tsx"),
    ]),
  ]),
  route("*", "routes/server/nowhere.tsx"),
] satisfies RouteConfig;
