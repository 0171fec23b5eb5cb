import { redirect } from "react-router";
import type { Route } from "./+types/first";
import { leftAt } from "./left";

/** A job opens where it was left; one that is new here, where the work starts. */
export const clientLoader = ({ params }: Route.ClientLoaderArgs) =>
  redirect(`/job/${params.jobId}/${leftAt(params.jobId)}`);
export default function First() {
  return null;
}
