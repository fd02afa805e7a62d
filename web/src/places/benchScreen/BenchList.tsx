import { Button } from "@mantine/core";
import type { BenchPage } from "@pale-cap/contract";
import type { RefObject } from "react";
import text from "../../ui/text.module.css";
import { BenchTable } from "./BenchTable";
import classes from "./bench.module.css";

/** Pages of jobs as one table, with how many there are and the way to the rest. */
export function BenchList(props: {
  readonly pages: {
    readonly data?: { readonly pages: readonly BenchPage[] };
    readonly hasNextPage: boolean;
    readonly isFetchingNextPage: boolean;
    readonly fetchNextPage: () => unknown;
  };
  readonly noun: string;
  readonly isSearched: boolean;
  readonly tableRef?: RefObject<HTMLTableElement | null>;
}) {
  const { data, hasNextPage, isFetchingNextPage, fetchNextPage } = props.pages;
  const lines = data?.pages.flatMap((page) => page.lines) ?? [];
  const total = data?.pages[0]?.total ?? 0;
  if (!data) return null;
  if (lines.length === 0) {
    const words = props.isSearched ? `No job ${props.noun} fits.` : `No job ${props.noun}.`;
    return <p className={text.soft}>{words}</p>;
  }
  return (
    <>
      <BenchTable lines={lines} tableRef={props.tableRef} />
      <div className={classes.more}>
        <span className={text.soft}>
          {lines.length === total ? `${total} ${props.noun}` : `${lines.length} of ${total} ${props.noun}`}
        </span>
        {hasNextPage && (
          <Button size="compact-sm" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show more
          </Button>
        )}
      </div>
    </>
  );
}
