import { type BundlePreview, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { newId } from "../api/newId";

interface BundleUpload {
  readonly file: File;
  readonly personId: string | null;
}

const form = ({ file, personId }: BundleUpload) => {
  const body = new FormData();
  body.append("about", JSON.stringify({ id: newId(), personId }));
  body.append("bundle", file);
  return body;
};

export const bundleApi = api.injectEndpoints({
  endpoints: (build) => ({
    previewBundle: build.mutation<BundlePreview, BundleUpload>({
      query: (upload) => ({ url: routes.bundlePreview.slice(1), method: "POST", body: form(upload) }),
    }),
    importBundle: build.mutation<BundlePreview, BundleUpload>({
      query: (upload) => ({ url: routes.bundleImports.slice(1), method: "POST", body: form(upload) }),
      invalidatesTags: ["Bench", "Catalogue", "BoardType"],
    }),
  }),
});

export const { usePreviewBundleMutation, useImportBundleMutation } = bundleApi;
