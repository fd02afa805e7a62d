import { type NewPhoto, type PhotoEdit, type PhotoRow, path, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { byId, patching, upsert } from "./patching";

const photoApi = api.injectEndpoints({
  endpoints: (build) => ({
    addPhoto: build.mutation<PhotoRow, { readonly jobId: string; readonly photo: NewPhoto; readonly picture: Blob }>({
      query: ({ jobId, photo, picture }) => {
        const body = new FormData();
        body.append("photo", JSON.stringify(photo));
        body.append("picture", picture, "picture");
        return { url: url(routes.photos, jobId), method: "POST", body };
      },
      onQueryStarted: patching((detail, row) => ({ ...detail, photos: upsert(detail.photos, row, byId) })),
    }),
    editPhoto: build.mutation<PhotoRow, OnJob<PhotoEdit> & { readonly photoId: string }>({
      query: ({ jobId, photoId, body }) => ({ url: url(routes.photo, jobId, { photoId }), method: "PATCH", body }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        photos: detail.photos.map((one) => (one.id === row.id ? row : one)),
      })),
    }),
  }),
});

export const { useAddPhotoMutation, useEditPhotoMutation } = photoApi;

export const photoImage = (photoId: string) => path(routes.photoImage, { photoId });
export const photoThumbnail = (photoId: string) => path(routes.photoThumbnail, { photoId });
