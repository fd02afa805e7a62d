/** What a log line says of a request: never what was looked for, which can be a name. */
const plainRequest = ({ method, url = "" }: { readonly method?: string; readonly url?: string }) => ({
  method,
  path: url.split("?")[0],
});

/** Of a failure its kind and where it was; not the values that a query was asked with. */
const plainError = (error: unknown) => {
  const { name, message, stack, code } = (typeof error === "object" && error !== null ? error : {}) as {
    readonly name?: string;
    readonly message?: string;
    readonly stack?: string;
    readonly code?: string;
  };
  return { type: name, message: message ?? String(error), stack, code };
};

/** Logs carry ids: a name that goes from the shop is in none of them. */
export const logSerializers = { req: plainRequest, err: plainError };
