import { describe, expect, it } from "vitest";
import { AddressNotAllowed, allowedAddress } from "./addresses";

describe("where an instrument may stand", () => {
  it.each([
    ["127.0.0.1", "loopback"],
    ["127.9.9.9", "loopback"],
    ["::1", "loopback"],
    ["localhost", "loopback"],
    ["10.0.0.5", "private"],
    ["172.16.0.1", "private"],
    ["172.31.255.254", "private"],
    ["192.168.178.40", "private"],
    ["169.254.3.4", "private"],
    ["fd12:3456::1", "private"],
    ["fe80::1", "private"],
    ["203.0.113.9", "any"],
  ] as const)("%s needs the rule %s at least", async (host, least) => {
    const order = ["loopback", "private", "any"] as const;
    for (const rule of order) {
      const asked = allowedAddress(host, rule);
      if (order.indexOf(rule) >= order.indexOf(least)) expect(await asked).toMatch(/[.:]/);
      else await expect(asked).rejects.toBeInstanceOf(AddressNotAllowed);
    }
  });

  it.each(["172.15.0.1", "172.32.0.1", "11.0.0.1", "192.169.0.1", "8.8.8.8", "2001:db8::1", "0.0.0.0"])(
    "%s is nobody's private network",
    async (host) => {
      await expect(allowedAddress(host, "private")).rejects.toBeInstanceOf(AddressNotAllowed);
    },
  );
});
