import type { InferType } from "yup";
import { fault } from "../faults";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  nullableId,
  nullableInstant,
  nullableText,
  number,
  object,
  strictObject,
  string,
  textField,
  wordField,
} from "../fields/fields";
import { type Realm, realms } from "../rights/rights";

/** docs/formats/bundle.md says what stands in a bundle. A later minor version has more; a later major one is another format. */
export const bundleVersion = { major: 1, minor: 0 } as const;
export const bundleName = "pale-cap-bundle";

/** What a bundle may be: more is no repair of this trade, or somebody's trick. */
export const bundleLimits = {
  uploadBytes: 120 * 1024 * 1024,
  unpackedBytes: 400 * 1024 * 1024,
  entryBytes: 80 * 1024 * 1024,
  entries: 20_000,
  jobs: 200,
  rowsOfJob: 200_000,
} as const;

const sha256 = () =>
  string()
    .matches(/^[0-9a-f]{64}$/, { message: fault("not_valid") as never })
    .required();

/** When a row was stored where it comes from, and in which order: row id to its place, receipt and clock. */
const receiptSchema = array().of(
  strictObject({
    id: idField(),
    sequence: number().integer().min(0).max(Number.MAX_SAFE_INTEGER).required(),
    receivedAt: nullableInstant(),
    clockAheadSeconds: finiteNumber().nullable().defined(),
  }).required(),
);

/** Fields of later minor versions are looked over: they are listed and not taken in. */
export const bundleManifestSchema = object({
  name: string().oneOf([bundleName]).required(),
  major: number().integer().min(1).required(),
  minor: number().integer().min(0).required(),
  coreVersion: textField(40),
  shop: nullableText(60),
  exportedAt: textField(40),
  hasCustomers: boolean().required(),
  jobs: array()
    .of(
      object({
        id: idField(),
        number: number().integer().min(0).max(2_147_483_647).required(),
        realm: wordField<Realm>(realms),
        device: textField(200),
        /** Of which job it is the return, where that one is not in the bundle. */
        comebackOf: nullableId(),
        receipts: receiptSchema.max(bundleLimits.rowsOfJob).required(),
      }).required(),
    )
    .max(bundleLimits.jobs)
    .required(),
  files: array()
    .of(
      object({
        name: textField(200),
        sha256: sha256(),
        bytes: number().integer().min(0).max(bundleLimits.entryBytes).required(),
      }).required(),
    )
    .max(bundleLimits.entries)
    .required(),
});
export type BundleManifest = InferType<typeof bundleManifestSchema>;

/** `here`: skipped, it stands here as it is there; `differs`: skipped, and what is here stays; `conflict`: cannot be taken in. */
export type BundleJobState = "new" | "here" | "differs" | "conflict";

export interface BundleJob {
  readonly id: string;
  readonly number: number;
  readonly device: string;
  readonly state: BundleJobState;
  /** Its number here; null where it is new. */
  readonly numberHere: number | null;
  /** Why it cannot be taken in. */
  readonly reason: string | null;
  readonly rowCount: number;
  readonly photoCount: number;
}

/** What a bundle would bring, before anything is stored. */
export interface BundlePreview {
  readonly shop: string | null;
  readonly exportedAt: string;
  readonly coreVersion: string;
  readonly hasCustomers: boolean;
  readonly jobs: readonly BundleJob[];
  readonly boardTypes: { readonly new: readonly string[]; readonly here: readonly string[] };
  readonly newPartCount: number;
  readonly newPeople: readonly string[];
  /** Fields that this version does not know: they are left out. */
  readonly unknownFields: readonly string[];
}

/** What travels beside the file. */
export const bundleUploadSchema = strictObject({ id: idField(), personId: nullableId() });
export const bundleQuerySchema = strictObject({ customers: wordField(["yes", "no"] as const) });
