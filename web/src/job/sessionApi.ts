import {
  type Account,
  type AccountEdit,
  type AuditPage,
  type BenchPlace,
  type LinkState,
  type LinkUse,
  type MadeLink,
  type NewAccount,
  type PasswordChange,
  type PersonChange,
  type PinChange,
  path,
  routes,
  type SessionState,
  type SignIn,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { url } from "./onJob";

const at = (route: string) => route.slice(1);

/** Who is at this browser, the accounts of the shop, its benches and its audit. */
export const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<SessionState, void>({ query: () => at(routes.session), providesTags: ["Session"] }),
    signIn: build.mutation<SessionState, SignIn>({
      query: (body) => ({ url: at(routes.session), method: "POST", body }),
      invalidatesTags: (_, error) => (error ? [] : ["Session"]),
    }),
    signOut: build.mutation<void, void>({ query: () => ({ url: at(routes.session), method: "DELETE" }) }),
    takeOver: build.mutation<SessionState, PersonChange>({
      query: (body) => ({ url: at(routes.sessionPerson), method: "POST", body }),
      invalidatesTags: (_, error) => (error ? [] : ["Session", "Practice", "People"]),
    }),
    leaveBench: build.mutation<void, void>({
      query: () => ({ url: at(routes.sessionPerson), method: "DELETE" }),
      invalidatesTags: ["Session"],
    }),
    chooseBench: build.mutation<SessionState, { readonly benchId: string | null }>({
      query: (body) => ({ url: at(routes.sessionBench), method: "PUT", body }),
      invalidatesTags: ["Session", "People"],
    }),
    changePassword: build.mutation<SessionState, PasswordChange>({
      query: (body) => ({ url: at(routes.sessionPassword), method: "PUT", body }),
      invalidatesTags: ["People"],
    }),
    changePin: build.mutation<SessionState, PinChange>({
      query: (body) => ({ url: at(routes.sessionPin), method: "PUT", body }),
      invalidatesTags: (_, error) => (error ? [] : ["Session", "People"]),
    }),
    lookAtLink: build.query<LinkState, string>({
      query: (token) => ({ url: at(routes.oneTimeLink), method: "POST", body: { token } }),
    }),
    useLink: build.mutation<SessionState, LinkUse>({
      query: (body) => ({ url: at(routes.oneTimeLinkUse), method: "POST", body }),
      invalidatesTags: (_, error) => (error ? [] : ["Session"]),
    }),
    accounts: build.query<readonly Account[], void>({ query: () => at(routes.accounts), providesTags: ["People"] }),
    addAccount: build.mutation<Account, NewAccount>({
      query: (body) => ({ url: at(routes.accounts), method: "POST", body }),
      invalidatesTags: (_, error) => (error ? [] : ["People"]),
    }),
    editAccount: build.mutation<Account, { readonly id: string; readonly body: AccountEdit }>({
      query: ({ id, body }) => ({ url: at(path(routes.account, { accountId: id })), method: "PATCH", body }),
      invalidatesTags: (_, error) => (error ? [] : ["People"]),
    }),
    linkFor: build.mutation<MadeLink, string>({
      query: (id) => ({ url: at(path(routes.accountLink, { accountId: id })), method: "POST", body: {} }),
    }),
    signOutOf: build.mutation<Account, { readonly id: string; readonly writeId: string }>({
      query: ({ id, writeId }) => ({
        url: at(path(routes.accountSignOut, { accountId: id })),
        method: "POST",
        body: { id: writeId },
      }),
      invalidatesTags: (_, error) => (error ? [] : ["People"]),
    }),
    audit: build.query<AuditPage, string>({ query: (query) => `${at(routes.audit)}${query}` }),
    benchPlaces: build.query<readonly BenchPlace[], void>({
      query: () => at(routes.benchPlaces),
      providesTags: ["People"],
    }),
    layOnBench: build.mutation<
      readonly BenchPlace[],
      { readonly jobId: string; readonly benchId: string; readonly writeId: string; readonly isOff?: boolean }
    >({
      query: ({ jobId, benchId, writeId, isOff }) => ({
        url: `${url(path(routes.benchJob.replace(":jobId", "JOB"), { benchId }).replace("JOB", ":jobId"), jobId)}`,
        method: isOff ? "DELETE" : "PUT",
        body: { writeId },
      }),
      invalidatesTags: ["People"],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useTakeOverMutation,
  useLeaveBenchMutation,
  useChooseBenchMutation,
  useChangePasswordMutation,
  useChangePinMutation,
  useLookAtLinkQuery,
  useUseLinkMutation,
  useAccountsQuery,
  useAddAccountMutation,
  useEditAccountMutation,
  useLinkForMutation,
  useSignOutOfMutation,
  useAuditQuery,
  useBenchPlacesQuery,
  useLayOnBenchMutation,
} = sessionApi;
