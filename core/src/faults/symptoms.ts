/** The vocabulary of symptoms, by what a person notices. Codes are stored; labels are wording. */
export const symptomGroups = [
  {
    title: "What lights",
    symptoms: {
      dead: "dead, nothing lights",
      indicator_steady: "indicator steady, no function",
      indicator_pulses: "indicator pulses",
      backlight_drops_out: "light, then the backlight drops out",
      no_picture: "runs, no picture or output",
      dim_or_flickers: "dim, or it flickers",
      blink_code: "the indicator blinks in a count",
      no_charging: "runs, but does not charge or is not recognised",
    },
  },
  {
    title: "What sounds, smells, feels",
    symptoms: {
      ticking: "ticks, tries and gives up",
      whine: "whine, hiss or squeal",
      hum: "mains hum",
      bang: "a bang was heard",
      smell: "smell of burning",
      smell_fish: "smell of fish",
      relay_clicks: "a relay clicks, again and again or once too often",
      tingle: "a tingle when it is touched",
      hot_capacitor: "one capacitor far hotter than its neighbours",
      overheats: "gets far too hot as a whole",
      fan_noise_or_stops: "fan noisy, or it stands",
    },
  },
  {
    title: "What the rails do",
    symptoms: {
      fuse_blown: "fuse open",
      breaker_tripped: "circuit breaker tripped",
      residual_current_tripped: "residual-current device tripped",
      one_mains_only: "works on one mains voltage only",
      radio_noise: "noise in a radio beside it",
      collapses_under_load: "collapses or resets under load",
      voltage_low: "voltage low and steady",
      voltage_high: "voltage high",
      ripple_mains: "hum bars, ripple at twice the mains",
      ripple_mains_single: "ripple at the mains frequency itself",
      ripple_switching: "ripple at the switching frequency",
    },
  },
  {
    title: "When, and what changes it",
    symptoms: {
      cold_start_fails: "will not start cold, works warm",
      repeated_attempts: "starts after repeated attempts",
      fails_when_warm: "stops when warm",
      fails_under_load: "only under load",
      drops_after_seconds: "after seconds",
      drops_after_minutes: "after minutes",
      worse_over_months: "worse over months",
      intermittent: "comes and goes",
      resets: "radio link or processor resets",
    },
  },
  {
    title: "What happened before",
    symptoms: {
      same_in_others: "same fault in several of this type",
      after_storm: "after a thunderstorm or a surge",
      after_liquid: "liquid got in",
      after_drop: "it was dropped or knocked",
      stored_for_years: "lay unused for years",
    },
  },
] as const;

/** History rather than symptoms: it moves priors, and nothing has to explain it. */
export const historyCodes: readonly string[] = symptomGroups
  .filter((group) => group.title === "What happened before")
  .flatMap((group) => Object.keys(group.symptoms));

/** Every symptom code with its label. */
export const symptomLabels: Readonly<Record<string, string>> = Object.assign(
  {},
  ...symptomGroups.map((group) => group.symptoms),
);

export const symptomCodes: readonly string[] = Object.keys(symptomLabels);
