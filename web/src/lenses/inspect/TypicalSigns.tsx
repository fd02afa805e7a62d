import { routes } from "@pale-cap/contract";
import type { PartKind } from "@pale-cap/core";
import { signLabels } from "@pale-cap/wording";
import { Link } from "react-router";
import { useSignPhotosQuery } from "../../job/casebookApi";
import text from "../../ui/text.module.css";
import classes from "./inspect.module.css";

/** What such signs looked like on closed jobs of this shop: photos whose pen mark names the place. */
export function TypicalSigns({ kind }: { readonly kind: PartKind }) {
  const { data: photos = [] } = useSignPhotosQuery(kind);
  if (photos.length === 0) return null;
  return (
    <details className={classes.typical}>
      <summary>What such signs looked like on closed jobs</summary>
      <ul className={classes.typicalPhotos}>
        {photos.map((photo) => (
          <li key={`${photo.photoId} ${photo.designator} ${photo.sign}`}>
            <Link to={`/jobs/${photo.jobId}/intake?page=photos`}>
              <img src={routes.photoThumbnail.replace(":photoId", photo.photoId)} alt={signLabels[photo.sign]} />
            </Link>
            <div className={text.soft}>
              {signLabels[photo.sign]}, {photo.designator} of {String(photo.jobNumber).padStart(4, "0")}
            </div>
          </li>
        ))}
      </ul>
    </details>
  );
}
