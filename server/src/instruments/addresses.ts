import { lookup } from "node:dns/promises";
import { BlockList, isIP } from "node:net";
import type { InstrumentAddresses } from "@pale-cap/contract";

/** An instrument stands where the house rule does not let it stand. */
export class AddressNotAllowed extends Error {}

const loopback = new BlockList();
loopback.addSubnet("127.0.0.0", 8, "ipv4");
loopback.addAddress("::1", "ipv6");

/** RFC 1918 and RFC 4193, and link-local addresses, which a meter gives itself at a cable. */
const privateNetworks = new BlockList();
privateNetworks.addSubnet("10.0.0.0", 8, "ipv4");
privateNetworks.addSubnet("172.16.0.0", 12, "ipv4");
privateNetworks.addSubnet("192.168.0.0", 16, "ipv4");
privateNetworks.addSubnet("169.254.0.0", 16, "ipv4");
privateNetworks.addSubnet("fc00::", 7, "ipv6");
privateNetworks.addSubnet("fe80::", 10, "ipv6");

/**
 * The address behind a host name, if the house rule allows it. A name is looked up once and the line is opened to what
 * was found: a name that is turned elsewhere afterwards does not matter.
 *
 * @throws {AddressNotAllowed} where the rule does not allow it
 */
export async function allowedAddress(host: string, allowed: InstrumentAddresses): Promise<string> {
  const address = isIP(host) ? host : (await lookup(host)).address;
  if (allowed === "any" || isWithin(loopback, address)) return address;
  if (allowed === "private" && isWithin(privateNetworks, address)) return address;
  throw new AddressNotAllowed("stands at an address that the house rule does not allow");
}

function isWithin(list: BlockList, address: string): boolean {
  return list.check(address, isIP(address) === 6 ? "ipv6" : "ipv4");
}
