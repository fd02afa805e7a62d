import { type Person, routes } from "@pale-cap/contract";
import { api } from "../api/api";

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    people: build.query<readonly Person[], void>({
      query: () => routes.people.slice(1),
      providesTags: ["People"],
    }),
  }),
});

export const { usePeopleQuery } = peopleApi;
