import { Button } from "@mantine/core";
import { shopWords } from "@pale-cap/wording";
import { useMay } from "../../job/useMay";
import { useOpenShop } from "../../job/useOpenShop";
import { ProblemNote } from "../../ui/ProblemNote";
import classes from "./houseRules.module.css";

/** In a shop: the way to the demo, where nothing is real. */
export function DemoNote() {
  const mayOpen = useMay("open_shop");
  const { shop, waitingCount, isOpening, problem, open } = useOpenShop();
  if (shop?.realm !== "shop" || !shop.canOpenOther || !mayOpen) return null;
  return (
    <div className={classes.backup}>
      <p>{shopWords.toDemo}</p>
      <Button variant="default" onClick={() => void open("demo")} loading={isOpening} disabled={waitingCount > 0}>
        Open the demo shop
      </Button>
      {waitingCount > 0 && <p className={classes.source}>{shopWords.waiting(waitingCount)}</p>}
      <ProblemNote problem={problem} />
    </div>
  );
}
