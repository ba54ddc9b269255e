import { describe, expect, test } from "vitest";
import type { DesignFields } from "@/contract";
import { channelFits } from "@/core/radio";
import { demoHardware } from "../../../../demo/seed";
import { fitChannel } from "./gear-rules";

const design = { centreMhz: 5500, widthMhz: 40, nearPowerDbm: 25, farPowerDbm: -5 } as DesignFields;

describe("choosing a radio", () => {
  test.each(demoHardware().radios.map((r) => [r.id, r] as const))("%s gets a channel inside its bands and a power it has", (_id, radio) => {
    const fitted = { ...design, ...fitChannel(design, radio) };
    expect(radio.channelWidthsMhz).toContain(fitted.widthMhz);
    expect(channelFits(radio.bandsMhz, fitted.centreMhz, fitted.widthMhz)).toBe(true);
    for (const power of [fitted.nearPowerDbm, fitted.farPowerDbm]) {
      expect(power).toBeGreaterThanOrEqual(radio.minTxPowerDbm);
      expect(power).toBeLessThanOrEqual(radio.modulations[0]!.maxTxPowerDbm);
    }
  });

  test("a channel that still fits is left alone", () => {
    const radio = demoHardware().radios.find((r) => r.id === "razorbill-dish")!;
    expect(fitChannel(design, radio)).toMatchObject({ widthMhz: 40 });
    expect(fitChannel(design, radio)).not.toHaveProperty("centreMhz");
  });
});
