import { redirect } from "react-router";
import type { Route } from "./+types/first";

/** A job opens where the work starts. */
export const clientLoader = ({ params }: Route.ClientLoaderArgs) => redirect(`/job/${params.jobId}/survey`);
export default function First() {
  return null;
}
