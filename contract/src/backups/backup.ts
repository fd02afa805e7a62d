/** The newest backup of the shop, as far as the server can see it. */
export interface BackupState {
  /** Backups are this product's own affair: its own cluster. null: the database is somebody else's. */
  readonly isOurs: boolean;
  readonly newest: {
    readonly at: string;
    readonly sizeBytes: number;
    readonly rowCount: number;
  } | null;
  readonly count: number;
}
