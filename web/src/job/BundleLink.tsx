import { Button, Checkbox } from "@mantine/core";
import { useState } from "react";
import text from "../ui/text.module.css";

/** Everything of some jobs as one open file; the customer goes along only where that is asked for. */
export function BundleLink(props: {
  readonly address: string;
  readonly name: string;
  /** A board type has no customer. */
  readonly hasCustomer?: boolean;
  readonly onGiven?: () => void;
}) {
  const { address, name, hasCustomer = true, onGiven } = props;
  const [withCustomer, setWithCustomer] = useState(false);
  return (
    <>
      <Button
        component="a"
        size="xs"
        href={`${address}${address.includes("?") ? "&" : "?"}customers=${hasCustomer && withCustomer ? "yes" : "no"}`}
        download
        onClick={onGiven}
      >
        {name}
      </Button>
      {hasCustomer && (
        <Checkbox
          size="xs"
          label="with the customer and the reports"
          checked={withCustomer}
          onChange={(event) => setWithCustomer(event.currentTarget.checked)}
        />
      )}
      {hasCustomer && !withCustomer && (
        <span className={text.soft}>Photos go as they are: look for a name in them.</span>
      )}
    </>
  );
}
