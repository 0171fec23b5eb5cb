import { fileJsonSchema } from "~/schemas/file";
import { solveReportJsonSchema } from "~/schemas/solveReport";
import type { Route } from "./+types/schema";

/** The JSON Schemas of the file format and of the command line's output. */
export function loader({ params }: Route.LoaderArgs) {
  switch (params.file) {
    case "job.json":
      return Response.json(fileJsonSchema());
    case "solve.json":
      return Response.json(solveReportJsonSchema());
    default:
      throw new Response("No such schema.", { status: 404 });
  }
}
