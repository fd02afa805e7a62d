/** The device as a person calls it. */
export function deviceName(device: {
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly deviceKind: string;
}): string {
  const name = [device.deviceMaker, device.deviceModel].filter(Boolean).join(" ");
  return name || `unnamed ${device.deviceKind.replace("-", " ")}`;
}
