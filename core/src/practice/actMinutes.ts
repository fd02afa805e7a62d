/**
 * Bench minutes of what hands do, by the kind of act: a look, a lift, a part out, a part in. A reading takes what
 * `probingMinutes` says; waiting counts by itself where the mains is on, and not at all while a charge leaves. Usual, rough.
 */
export const actMinutes = {
  look: 0.25,
  smell: 0.1,
  listen: 0.2,
  move: 0.5,
  cool: 1,
  warm: 2,
  wait: 0,
  lift: 2.5,
  take_out: 4,
  put_back: 1,
  fit: 5,
  renew: 6,
  resolder: 2,
  clean: 4,
  mend: 10,
  new_meter: 15,
  mains: 0.5,
  drain: 0.5,
  clip: 0.3,
  host: 2,
  load: 0.3,
  check: 1.5,
} as const;
