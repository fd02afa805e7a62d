import { Button, Popover } from "@mantine/core";
import { shopWords } from "@pale-cap/wording";
import { Allowed } from "../../job/Allowed";
import { useOpenShop } from "../../job/useOpenShop";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./frame.module.css";

/** Beside the name, as long as the demo is open: that everything here is invented, and the way to a shop of one's own. */
export function DemoMark() {
  const { shop, waitingCount, isOpening, problem, open } = useOpenShop();
  if (shop?.realm !== "demo") return null;
  return (
    <Popover position="bottom-start" width={330} transitionProps={{ duration: 60 }} withinPortal>
      <Popover.Target>
        <button type="button" className={classes.demo}>
          Demo shop
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <p className={classes.demoWords}>{shopWords.demo}</p>
        {shop.canOpenOther ? (
          <>
            <Allowed right="open_shop">
              <Button onClick={() => void open("shop")} loading={isOpening} disabled={waitingCount > 0}>
                Start my own shop
              </Button>
            </Allowed>
            <p className={text.soft}>{waitingCount > 0 ? shopWords.waiting(waitingCount) : shopWords.bothStay}</p>
          </>
        ) : (
          <p className={text.soft}>{shopWords.cannotOpen}</p>
        )}
        <ProblemNote problem={problem} />
      </Popover.Dropdown>
    </Popover>
  );
}
