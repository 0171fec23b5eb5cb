import { type ComponentProps, lazy, Suspense } from "react";

const Chart = lazy(async () => ({ default: (await import("./chart")).LineChart }));

/** A chart whose library is fetched when it is first shown. */
export const LineChart = (props: ComponentProps<typeof Chart>) => (
  <Suspense fallback={<p style={{ height: props.height ?? 240 }}>Drawing…</p>}>
    <Chart {...props} />
  </Suspense>
);
