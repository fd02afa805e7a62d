import {
  type BundlePreview,
  bundleLimits,
  bundleQuerySchema,
  bundleUploadSchema,
  casebookBundleLimit,
  casebookQuerySchema,
  routes,
} from "@pale-cap/contract";
import type { Request, Response } from "express";
import type { AppContext } from "../../appContext";
import { importBundle, prepareBlobs, previewBundle } from "../../bundles/importBundle";
import { type Columns, columnsOf, readBundle } from "../../bundles/readBundle";
import { type BundleFiles, type BundleWish, writeBundle } from "../../bundles/writeBundle";
import { searchCasebook } from "../../casebook/searchCasebook";
import { searched } from "../../casebook/searched";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { receiveUpload } from "../../http/receiveUpload";
import { live, type Route, write } from "../../http/route";
import { parseBody } from "../../http/validate";

const receiveBundle = receiveUpload({
  noun: "bundle",
  aboutField: "about",
  about: bundleUploadSchema,
  mostBytes: bundleLimits.uploadBytes,
});

/** Jobs that leave as one open file, and enter again as they left. */
export function bundleRoutes({ database, now }: AppContext): readonly Route[] {
  const columns = (): Promise<Columns> => database.read(now(), async (scope) => columnsOf(scope));
  /** A bundle of what an address names. */
  const give = (
    path: string,
    name: string,
    wishOf: (scope: Scope, id: string, query: Request["query"]) => Promise<Omit<BundleWish, "withCustomers">>,
  ) =>
    live({
      method: "get",
      path,
      right: "export",
      live: async (request, response, { params }) => {
        const { customers } = parseBody(bundleQuerySchema, { customers: request.query.customers });
        const id = Object.values(params)[0] as string;
        const files = await database.read(now(), async (scope) =>
          writeBundle(scope, { ...(await wishOf(scope, id, request.query)), withCustomers: customers === "yes" }),
        );
        await send(response, name, files);
      },
    });
  return [
    give(routes.jobBundle, "job", async (scope, id) => {
      if (!(await scope.rows.jobs.has({ id }))) throw new HttpProblem("not_found", "There is no job with this id.");
      return { jobIds: [id], boardTypeIds: [] };
    }),
    give(routes.familyBundle, "family", async (scope, id) => {
      const job = await scope.rows.jobs.first({ id });
      if (!job?.jobFamilyId) throw new HttpProblem("not_found", "This job is of no family.");
      const brothers = await scope.rows.jobs.all({ jobFamilyId: job.jobFamilyId, realm: job.realm }, [
        ["number", "ASC"],
      ]);
      return { jobIds: brothers.map((one) => one.id), boardTypeIds: [] };
    }),
    give(routes.casebookBundle, "casebook", async (scope, _, query) => {
      const asked = { ...parseBody(casebookQuerySchema, searched(query)), offset: 0 };
      const { lines, total } = await searchCasebook(scope, asked, casebookBundleLimit);
      if (total > casebookBundleLimit) {
        throw new HttpProblem(
          "conflict",
          `These are ${total} jobs; a bundle takes ${casebookBundleLimit}. Narrow the search.`,
        );
      }
      const jobIds = lines.filter((line) => line.closedAt !== null).map((line) => line.id);
      if (jobIds.length === 0) throw new HttpProblem("not_found", "No closed job answers to that.");
      return { jobIds, boardTypeIds: [] };
    }),
    give(routes.boardTypeBundle, "board-type", async (scope, id) => {
      if (!(await scope.rows.boardTypes.has({ id })))
        throw new HttpProblem("not_found", "There is no such board type.");
      return { jobIds: [], boardTypeIds: [id] };
    }),
    live({
      method: "post",
      path: routes.bundlePreview,
      right: "take_in",
      live: async (request: Request, response: Response) => {
        const { bytes } = await receiveBundle(request, response);
        const bundle = await readBundle(await columns(), bytes);
        response.json(await database.read(now(), (scope) => previewBundle(scope, bundle)));
      },
    }),
    write({
      method: "post",
      path: routes.bundleImports,
      kind: "bundle import",
      right: "take_in",
      creates: true,
      schema: bundleUploadSchema,
      receive: receiveBundle,
      prepare: async ({ bytes }) => {
        const bundle = await readBundle(await columns(), bytes as Buffer);
        return { bundle, blobs: await prepareBlobs(bundle) };
      },
      write: async (scope, _input, { bundle, blobs }) => {
        await importBundle(scope, bundle, blobs);
      },
      answer: async (scope, { bytes }): Promise<BundlePreview> =>
        previewBundle(scope, await readBundle(columnsOf(scope), bytes as Buffer)),
    }),
  ];
}

/** One moment for every file: the same rows are the same bytes. */
const fixedDate = new Date("2020-01-01T00:00:00Z");

async function send(response: Response, name: string, files: BundleFiles): Promise<void> {
  // Loaded when it is wanted: few starts are ever asked for a bundle.
  const { ZipArchive } = await import("archiver");
  response.set({
    "Content-Type": "application/zip",
    "Content-Disposition": `attachment; filename="pale-cap-${name}.zip"`,
  });
  const archive = new ZipArchive({ zlib: { level: 6 }, forceUTC: true });
  archive.on("error", (error: Error) => response.destroy(error));
  archive.pipe(response);
  for (const [file, content] of files) archive.append(content, { name: file, date: fixedDate, mode: 0o644 });
  await archive.finalize();
}
