import {
  type CasebookPage,
  type CasebookQuery,
  type ChangeLine,
  type KindPage,
  type KindQuery,
  type QualityPage,
  routes,
  type SeriesLine,
  type SeriesPage,
  type SeriesQuery,
  type SignPhoto,
} from "@pale-cap/contract";
import { api } from "../api/api";

/** Only what is asked for stands in an address. */
export function searchText(values: Readonly<Record<string, string | null | undefined>>): string {
  const given = Object.entries(values).filter((one): one is [string, string] => Boolean(one[1]));
  return new URLSearchParams(given).toString();
}

/** The address of a search, for the screen and for its file. */
export function casebookSearch(query: CasebookQuery): string {
  return searchText({
    ...{ q: query.search, kind: query.deviceKind, model: query.model, type: query.boardTypeId },
    ...{ symptom: query.symptom, cause: query.cause, series: query.series, back: query.hasReturned ? "yes" : null },
    offset: query.offset > 0 ? String(query.offset) : null,
  });
}

/** A kind's page, by model or board type. */
export const kindAddress = ({ maker, model, boardTypeId }: KindQuery): string =>
  `/casebook/kind?${searchText(boardTypeId === null ? { maker, model } : { type: boardTypeId })}`;

export const seriesAddress = (series: string): string => `/casebook/series/one?${searchText({ series })}`;

const asked = (path: string, search: string) => (search ? `${path.slice(1)}?${search}` : path.slice(1));

const casebookApi = api.injectEndpoints({
  endpoints: (build) => ({
    casebook: build.query<CasebookPage, CasebookQuery>({
      query: (query) => asked(routes.casebook, casebookSearch(query)),
      providesTags: ["Bench"],
    }),
    kind: build.query<KindPage, KindQuery>({
      query: ({ maker, model, boardTypeId }) =>
        asked(routes.casebookKind, searchText({ maker, model, type: boardTypeId })),
      providesTags: ["Bench", "Papers"],
    }),
    seriesList: build.query<readonly SeriesLine[], void>({
      query: () => routes.casebookSeries.slice(1),
      providesTags: ["Bench"],
    }),
    series: build.query<SeriesPage, SeriesQuery>({
      query: ({ series, section, warmth, against }) =>
        asked(routes.casebookOneSeries, searchText({ series, section, warmth, against })),
      providesTags: ["Bench"],
    }),
    changeLines: build.query<readonly ChangeLine[], void>({
      query: () => routes.casebookChanges.slice(1),
      providesTags: ["Bench", "HouseRules"],
    }),
    quality: build.query<QualityPage, string | null>({
      query: (person) => asked(routes.casebookQuality, searchText({ person })),
      providesTags: ["Bench"],
    }),
    signPhotos: build.query<readonly SignPhoto[], string | null>({
      query: (kind) => asked(routes.casebookPhotos, searchText({ kind })),
      providesTags: ["Bench"],
    }),
  }),
});

export const {
  useCasebookQuery,
  useKindQuery,
  useSeriesListQuery,
  useSeriesQuery,
  useChangeLinesQuery,
  useQualityQuery,
  useSignPhotosQuery,
} = casebookApi;
