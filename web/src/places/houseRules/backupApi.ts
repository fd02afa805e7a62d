import { type BackupState, routes } from "@pale-cap/contract";
import { api } from "../../api/api";

export const backupApi = api.injectEndpoints({
  endpoints: (build) => ({
    backups: build.query<BackupState, void>({ query: () => routes.backups.slice(1), providesTags: ["Backups"] }),
  }),
});

export const { useBackupsQuery } = backupApi;
