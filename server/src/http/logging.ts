import { randomUUID } from "node:crypto";
import type { IncomingMessage } from "node:http";
import type { RequestHandler } from "express";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";

/** What a log line says of a request: never what was looked for, which can be a name. */
const plainRequest = ({
  id,
  method,
  url = "",
}: {
  readonly id?: unknown;
  readonly method?: string;
  readonly url?: string;
}) => ({
  id,
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

const plainResponse = ({ statusCode }: { readonly statusCode?: number }) => ({ status: statusCode });

/** Logs carry ids: a name that goes from the shop is in none of them. */
export const logSerializers = { req: plainRequest, res: plainResponse, err: plainError };

/** An id for each request, told in its answer, so that somebody who saw a failure can name its line in the log. */
export function requestLog(logger: Logger, logsEach: boolean): RequestHandler {
  return pinoHttp<IncomingMessage>({
    logger,
    serializers: logSerializers,
    wrapSerializers: false,
    autoLogging: logsEach,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader("X-Request-Id", id);
      return id;
    },
  }) as RequestHandler;
}
