/**
 * What each breach on a practice supply costs, in points of a hundred. What could have hurt a hand, a house or a device costs at least
 * as much as makes a supply not passed, whatever else went well. Convention.
 */
export const practicePenalties = {
  live_touch: 100,
  bench_tripped: 60,
  meter_killed: 50,
  part_vented: 50,
  power_untested: 40,
  host_unchecked: 40,
  host_killed: 20,
  transistor_burnt: 10,
  new_part_burnt: 10,
  overvolted: 10,
  fuse_blown: 5,
  pad_pulled: 3,
  breaker_tripped: 2,
  earth_trip: 0,
  hint_1: 2,
  hint_2: 4,
  hint_3: 6,
  sound_condemned: 3,
  bad_left: 10,
  needless_lift: 1,
  check_missed: 3,
  wrong_part: 5,
  proof_left: 5,
} as const;
export type PracticeBreach = keyof typeof practicePenalties;
