import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { servingFrom } from "./serving";

const folder = mkdtempSync(join(tmpdir(), "pale-cap-serving-"));
const [cert, key] = ["cert.pem", "key.pem"].map((name) => join(folder, name)) as [string, string];
for (const file of [cert, key]) writeFileSync(file, "made up");
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const beyond = { PALE_CAP_LISTEN: "0.0.0.0", PALE_CAP_HOSTS: "bench.example.net" };
const withTls = { PALE_CAP_TLS_CERT: cert, PALE_CAP_TLS_KEY: key };

describe("how it is served", () => {
  it("is alone and on loopback where nothing is said, and a shop there where that is", () => {
    expect(servingFrom({})).toMatchObject({
      mode: "alone",
      listen: "127.0.0.1",
      isLoopback: true,
      isSecure: false,
      metricsPort: null,
    });
    expect(servingFrom({ PALE_CAP_MODE: "shop" })).toMatchObject({ mode: "shop", isLoopback: true, isSecure: false });
    expect(servingFrom({ PALE_CAP_METRICS_PORT: "9100" }).metricsPort).toBe(9100);
  });
  it("is a shop as soon as it listens beyond this machine, under names that were given, over TLS", () => {
    const own = servingFrom({ ...beyond, ...withTls, PALE_CAP_HOSTS: "bench.example.net, shop:8443" });
    expect(own).toMatchObject({ mode: "shop", isLoopback: false, isSecure: true });
    expect(own.servedAt.hosts).toEqual(expect.arrayContaining(["bench.example.net", "shop", "127.0.0.1"]));
    expect(own.servedAt.ports).toEqual([8443, 443]);
    const proxied = servingFrom({ ...beyond, PALE_CAP_TRUSTED_PROXIES: "10.0.0.7, 10.1.0.0/16" });
    expect([proxied.isSecure, proxied.tls, proxied.trustedProxies]).toEqual([true, null, ["10.0.0.7", "10.1.0.0/16"]]);
  });
  it.each([
    [
      "alone beyond this machine",
      { ...beyond, ...withTls, PALE_CAP_MODE: "alone" },
      "Alone, Pale Cap listens to this machine only",
    ],
    ["in clear beyond this machine", beyond, "passwords must not travel in clear"],
    ["beyond it under no name", { PALE_CAP_LISTEN: "192.168.1.20", ...withTls }, "PALE_CAP_HOSTS must name"],
    ["on no address", { PALE_CAP_LISTEN: "shop" }, "must be an address of this machine"],
    ["in a mode that there is not", { PALE_CAP_MODE: "open" }, "alone or shop"],
    ["with half a certificate", { PALE_CAP_TLS_CERT: cert }, "belong together"],
    ["with a certificate that is not there", { ...withTls, PALE_CAP_TLS_KEY: join(folder, "none") }, "cannot be read"],
    ["behind whom nobody can tell", { PALE_CAP_TRUSTED_PROXIES: "front" }, "holds addresses or networks"],
    ["with figures on no port", { PALE_CAP_METRICS_PORT: "many" }, "must be a number"],
  ])("is refused %s", (_, environment, words) => {
    expect(() => servingFrom(environment)).toThrow(words);
  });
});
