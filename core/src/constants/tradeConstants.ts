/**
 * What the trade takes for granted where no standard and no data sheet says it: one replaceable set beside
 * judgementConstants, by the room that uses it. Rough, unless it says otherwise.
 */
export const tradeConstants = {
  capacitors: {
    /** Leakage that sheets allow, of C V: solid polymer, hybrid, and liquid parts for the mains. */
    /** Most ESR of hybrids by diameter, and by volts on top. Rough, from sheets. */
    hybridMostOhms: [
      [5.5e-3, 0.12],
      [6.9e-3, 0.06],
      [8.9e-3, 0.027],
      [10.9e-3, 0.02],
    ] as readonly (readonly [upToMetres: number, ohms: number])[],
    hybridVoltFactors: [
      [35, 1],
      [50, 1.3],
      [63, 1.6],
      [80, 2],
    ] as readonly (readonly [upToVolts: number, ratio: number])[],
    ...{ polymerLeakageRatio: 0.2, hybridLeakageRatio: 0.05, highVoltLeakageRatio: 0.03, highVoltsFrom: 160 },
    /** The series part of ESR never falls below this share of the whole, whatever the oxide is said to lose. */
    leastSeriesShare: 0.05,
    /** Markings this near to a row of a table are that row. */
    sameVoltsRatio: 0.005,
    /** Plus and minus from a marking that says no tolerance. */
    usualToleranceRatio: 0.2,
  },
  readings: {
    /** Further apart than the meter explains by so much, repeats do not agree. */
    conflictFactor: 3,
    /** After so long at rest a part that the iron had re-formed shows what it is. */
    restHours: 12,
  },
  board: {
    /** The mains may stand so far from its name; two diodes of a bridge; a loaded bulk's ripple and droop. */
    mainsToleranceRatio: 0.1,
    bridgeDropVolts: 2,
    bulkRippleShare: 0.2,
    /** Rails up to here carry logic: their limit is in millivolts, where the house has one. */
    lowRailVolts: 6,
    /** Below this a junction is a short, below that a channel is; bench habits at a meter's small current. */
    shortVolts: 0.08,
    shortOhms: 20,
  },
  judgement: {
    /** Log-likelihood ratio of a part that read bad in circuit and good right after the iron. */
    badThenGoodWeight: 1.5,
    /** Where nearly every state of its bank that fits has a part failed, no bound over the bank is needed. */
    condemnedByStatesFrom: 0.9,
    /** An ohmmeter was held for so long where nobody says longer: a sound part shows these seconds over its farads. */
    heldSeconds: 1,
    /** Parts that leak, of those that come to a bench; of a bank that reads low with the ohmmeter, and of one that does not. */
    leakPrior: 0.015,
    leakSuspectedRatio: 0.6,
    leakSpanOhms: [5, 30e3] as readonly [least: number, most: number],
    leakUnsuspectedFactor: 0.4,
    /** With the ohmmeter a part below this is a short, whatever else it reads. */
    shortOhms: 1,
    /** A net that reads less has something that conducts: usual loads of its kind leave more. */
    suspiciousOhms: {
      ...{ bulk: 50e3, pfc: 50e3, vcc: 3e3, feedback: 3e3, standby: 200, output: 100, "output-post": 200 },
    } as Readonly<Record<string, number>> & { readonly output: number },
    /** How electrolytics are that come to a bench, by shares; rough, from benches. */
    conditionShares: { new: 0.66, ageing: 0.14, dry: 0.115, cooked: 0.04, tab: 0.03, open: 0.012 },
    /** Wet shares of the foil, from which one it only ages, and the powers by which ESR grows with what is lost, with their shares. */
    drying: {
      wetRatios: [
        ...[0.95, 0.9, 0.85, 0.8, 0.75, 0.7, 0.65, 0.6, 0.5, 0.45, 0.4, 0.35, 0.3, 0.25, 0.2, 0.16, 0.12],
      ] as readonly number[],
      ageingFromRatio: 0.75,
      powers: [
        [1.3, 0.12],
        [2, 0.28],
        [3.5, 0.35],
        [5, 0.25],
      ] as readonly (readonly [power: number, shareRatio: number])[],
    },
    /** New ESR of series against the table of their class, as standard deviations of ln; which class, where nobody entered it. */
    series: {
      spreadRatio: 0.3,
      spreadWithoutSize: 0.45,
      spreadBySheet: 0.2,
      wrongClassShare: 0.08,
      /** A bank whose series reads so many times what its marking lets expect is told of. */
      tellFromFactor: 1.5,
      classOfMains: { gp: 0.85, lowz: 0.12, ultra: 0.03 },
      classOfVcc: { gp: 0.45, lowz: 0.5, ultra: 0.05 },
      classOfOutput: { gp: 0.2, lowz: 0.6, ultra: 0.2 },
    },
    chances: {
      /** Parts of one series differ by so much, and the table is worse away from 100 kHz. */
      partSpreadRatio: 0.1,
      slowSpreadRatio: 0.1,
      slowSeriesSpreadRatio: 0.25,
      slowBelowHertz: 20e3,
      /** New C against the marking; how sharp a school's limits are on parts that are not new. */
      newCapacitanceSpread: 0.06,
      /** Above this a meter reads less of it: the foil's pores fill no longer. */
      fastCapacitanceFromHertz: 500,
      fastCapacitanceSpread: 0.06,
      limitSpreadRatio: 0.12,
      capacitanceLimitSpread: 0.04,
      /** A school's limit on C is held against the marking, and a part is not failed for having been new so much below it. */
      capacitanceGrace: 0.03,
      /** A hand slips by a decade, or anything else, so often; a marking is read wrong by one usual step so often. */
      slipShare: 0.005,
      /**
       * Where a slip lands: mostly within a decade or so, as a density beside a bell of height one (sqrt(2 pi) / ln 10000), and
       * seldom further off.
       */
      slipDensity: 0.27,
      farFromLn: 3.2,
      farSlipShare: 0.15,
      wrongValueShare: 0.015,
      wrongValueFactor: 2.2,
      /** A part reads open though it is not: with probes that have read something before, and with others. */
      openThoughNot: 0.01,
      openByBadContact: 0.3,
      /** Of what looks say of "failed" so much counts for "worn" too. */
      wornShareOfLooks: 0.4,
      /** Bad batches: their share of banks, and how parts fare in them and elsewhere against the average. */
      badBatchShare: 0.06,
      ...{ goodOfUsual: 1.04, badOfUsual: 0.75, goodOfBatch: 0.18, badOfBatch: 5 },
      /** Below this share of the likeliest a combination of leads and series is not listed. */
      leastCellShare: 3e-3,
      leastCombinationShare: 1e-4,
    },
    bank: {
      canHenrys: 12e-9,
      /** Spread of a bank's reading beside its meter's; below the resonance of usual chokes, with one drawn and without. */
      spreadRatio: 0.08,
      resonantBelowHertz: 20e3,
      resonantSpread: 0.4,
      slowSpread: 0.25,
      capacitanceSpread: 0.06,
      /** So often something beside it that nobody entered moves a bank's reading, by up to this logarithm. */
      besideShare: 0.08,
      besideLn: 1,
      /** A choke of which nothing is known but that it is there: henries with their shares. */
      unknownChokes: [
        [1.5e-6, 0.3],
        [4.7e-6, 0.4],
        [14e-6, 0.3],
      ] as readonly (readonly [henrys: number, shareRatio: number])[],
    },
    /** A part below this share of what its bank reads, or alone on its net above so many times it, was read wrong once. */
    contradiction: { belowBankRatio: 0.5, aloneFactor: 5 },
    /** When equal parts contradict what was entered of them: so many, so far off, so near to one another and to something usual. */
    entries: {
      leastParts: 2,
      leastHertz: 50e3,
      ...{ esrFactor: 1.6, esrSpread: 1.5, fitFactor: 1.25, soundRatio: 0.85 },
      ...{ valueFactor: 1.4, valueSpread: 1.2, valueNearFactor: 1.12, driedEsrFactor: 2 },
      cansMillimetres: [
        [4, 7],
        [5, 11],
        [6.3, 11],
        [8, 11.5],
        [8, 15],
        [8, 20],
        [10, 12.5],
        [10, 16],
        [10, 20],
        [10, 25],
        [10, 30],
        [12.5, 20],
        [12.5, 25],
        [12.5, 30],
        [16, 20],
        [16, 25],
        [16, 31.5],
        [18, 25],
        [18, 35.5],
      ] as readonly (readonly [diameter: number, height: number])[],
    },
    /** What leads add that nobody zeroed: steps with their shares, and half of a step relative to it. */
    leads: {
      steps: [
        [0, 0.8],
        [0.03, 0.045],
        [0.05, 0.05],
        [0.08, 0.05],
        [0.12, 0.035],
        [0.17, 0.02],
      ] as readonly (readonly [ohms: number, shareRatio: number])[],
      stepRatio: 0.2,
      /** From this chance on that the leads add something the tips go together before anything else. */
      askFromRatio: 0.3,
      askFromReadings: 4,
      tellFromRatio: 0.5,
    },
    /** A can above this runs hotter than usual ones do in free air on a bench. */
    hotCanCelsius: 60,
    hotCanWeight: 1.2,
    /** A can this much above the air heats itself, or is heated; without the air it says less. Rough. */
    hotCanRiseKelvin: 25,
    hotWithoutAirWeight: 0.4,
    /** Log-odds beyond these are certainty for every purpose, and stay finite. */
    mostLogOdds: 40,
    /** Share of its voltage that a part may lose in the test before it leaks. */
    voltageLossFailedRatio: 0.1,
    /** Cold resistance of a thermistor against its marking: they are sold with wide tolerances, and rooms differ. */
    thermistorLowRatio: 0.6,
    thermistorHighRatio: 1.5,
    /** A resistor further from its marking than this is not what it was; in circuit neighbours only lower it. */
    resistorToleranceRatio: 0.15,
    regulatorToleranceRatio: 0.05,
    /** A supply whose least lies further below its most pulses. */
    pulsingRatio: 0.2,
    /** A sound part may read beyond a meter's end from here on. */
    openIsSoundFromOhms: 200e6,
  },
  faults: {
    /** A suspicion from here on is confirmed by its own test before new ground; worth in bits, and of what it takes along. */
    confirmFromRatio: 0.25,
    confirmBits: 1.2,
    cascadeBits: 0.8,
    /** So many capacitors with a rail, or parts at all, and a board counts as entered: what it has no part for is hardly there. */
    enteredCapacitors: 4,
    enteredParts: 8,
    absentFactor: 0.08,
    /** An output this near to its name runs. */
    runsFromRatio: 0.8,
    runsToRatio: 1.35,
    /** Under power a boost stage that does not boost leaves the crest of its mains. */
    unboostedVolts: [250, 350] as readonly [number, number],
    /** What a shorted bulk reads off the board, what clears it in circuit, and what is left of one that is open. */
    shortedBulkOhms: 20,
    clearBulkOhms: 1000,
    openBulkRatio: 0.05,
    /** Marking from which a resistor senses nothing, and up to which one at the input is a fuse of its own. */
    mostFusibleOhms: 50,
    leastBleederOhms: 47e3,
    /** Unloaded, outputs that nobody senses stand so much too high. */
    /** From this share of its full load on an output that is not sensed stands where it should. */
    loadedFromRatio: 0.1,
    unloadedHighRatio: 1.3,
    /** Of all that capacitors say together of a rail no more than this counts either way. */
    mostSoftFactor: 50,
    /** A bulk below this was never full. */
    fullFromVolts: 30,
    /** As much of the first reading after the time of holding is "still full". */
    staysFullRatio: 0.85,
    /** Above the prediction by so much, and above so many volts, a decay is too slow. */
    slowRatio: 1.5,
    slowFromVolts: 5,
    /** A smaller logarithm of the fall tells no capacitance. */
    leastTellingFall: 0.01,
    /** A test that shows a fault so often clears it when it is in order. */
    surelyShownRatio: 0.9,
    /** A film capacitor with less of its marking has lost what its place needs. */
    lostFilmRatio: 0.8,
    openFuseOhms: 100,
    shortedRailOhms: 2,
    openThermistorOhms: 500,
    shortedControlOhms: 50,
    shortedJunctionOhms: 1,
    openShuntOhms: 1e6,
    soundShuntOhms: 10,
  },
  measuring: {
    /** A sound part loses less in the voltage test. */
    voltageLossSoundRatio: 0.05,
    /** From so many times the catalogue's limit on a leak is bad, and not only old. */
    leakageBadFactor: 5,
    /** Loss factor over the expected one from which it is bad. */
    lossBadFactor: 3,
    /** A can in a running supply, from a cool room up to this much below its class; bad from nearer to it. */
    runningLeastCelsius: 10,
    runningBelowClassKelvin: 25,
    tooNearClassKelvin: 10,
    /** What lies behind a charge that is not verified comes first only where it is worth so much more. */
    chargeWorthFactor: 1.5,
    /** Less than this is not worth a probe. */
    leastGainBits: 0.01,
  },
  safety: {
    /** Below this a reading is a zero, and a zero alone does not show that the meter measures. */
    zeroVolts: 0.5,
    /** Skin hardly lets direct current through below this: the usual touch limit. */
    touchLimitVolts: 60,
    /** Bands as usual in guides for stored electrical energy. */
    severeFromJoules: 0.25,
    deadlyFromJoules: 10,
    /** What can hold more counts as a store whether anyone names it or not: above the touch limit, and at any voltage. */
    highVoltStoreJoules: 0.05,
    anyVoltStoreJoules: 5,
    /** Half of what dielectric absorption gives back is back after so long; from benches, rough. */
    creepHalfSeconds: 60,
    /** A store of unknown capacitance is reckoned with more than usual ones of its kind have; from benches, rough. */
    assumedStoreFarads: {
      ...{ bulk: 680e-6, pfc_bulk: 680e-6, series_half: 1e-3, series_pair: 1e-3 },
      ...{ x_capacitor: 2.2e-6, output_bank: 10e-3, other: 1e-3 },
    },
    /** A low reading on what stood above the touch limit counts so long before a meter is put across it. */
    highStoreFreshSeconds: 300,
    /** A short, whatever anybody ticks: an ohmmeter below this, a diode test below that either way. */
    contradictingOhms: 10,
    contradictingVolts: 0.1,
    /** What a sound line, bulk, switched-off channel and shunt usually read, after what charges has charged. */
    oddLineOhms: 100e3,
    oddBulkOhms: 10e3,
    oddChannelOhms: 1e3,
    oddShuntOhms: 10,
    /** Insulation of class I to earth; local rules come first. */
    leakingOhms: 1e6,
    /** A bond of class I with its cord; above an ohm nobody ticks one. */
    usualBondOhms: 0.3,
    mostBondOhms: 1,
    /** A filament at its rating is near 2800 K; above this it ages in flashes. */
    hottestFilamentKelvin: 3000,
    /** A lamp's rating is RMS: the crest is 1.41 times that, and a short overshoot does no harm. */
    lampVoltsRatio: 1.6,
    /** A standby starts behind a lamp from here on. */
    leastSeriesLampWatts: 40,
    /** Beyond this share of its rating a lamp starves what is behind it. */
    usableLampShare: 0.25,
    /** A current limit above what the unit draws at its rating, below what keeps burning. */
    limiterMarginRatio: 1.5,
    leastLimitAmps: 0.1,
    usualEfficiencyRatio: 0.85,
    usualPowerFactorRatio: 0.6,
    /** With a boost stage the current follows the mains. */
    correctedPowerFactorRatio: 0.95,
    /** Of a label's volts times amperes: those are the worst case, with margin. */
    labelPowerFactorRatio: 0.55,
    /** Unloaded a first power-up needs no larger lamp than this, up to such a unit; and than the largest beyond it. */
    largestLampWatts: 100,
    largestLampUpToWatts: 400,
    /** A d.c. supply first at this share of what the unit draws whole. */
    dcFeedStartShare: 0.1,
    leastDcFeedAmps: 0.05,
    /** Of the power at the rating, enough to see a converter start unloaded. */
    bulkFeedShare: 0.1,
    leastBulkFeedAmps: 0.02,
  },
  stock: {
    /** What a row of a catalogue may say; beyond it a column or a unit slipped. */
    rowLimits: {
      capacitanceFarads: [1e-8, 1],
      ratedVolts: [2, 1000],
      temperatureClassCelsius: [60, 200],
      diameterMetres: [2e-3, 0.1],
      heightMetres: [3e-3, 0.3],
      pitchMetres: [0.5e-3, 0.05],
      esrOhms: [1e-4, 1000],
      rippleAmpsRms: [1e-3, 100],
      ratedLifeHours: [100, 200_000],
      priceMinor: [1, 1_000_000],
      ratingHertz: [50, 1e6],
      dissipationFactorRatio: [1e-3, 1],
    } as const,
    /** The best cans hold about a third of this. Rough. */
    mostJoulesPerCubicMetre: 5e6,
    mostCoulombsPerCubicMetre: 0.1e6,
    /** From here on a printed frequency is the switching one. */
    highRatingHertz: 10e3,
    testedHertz: 120,
    sheetHertz: 100e3,
    /** A liquid part of so many rated volts is re-formed as soon as its shelf time is over. */
    highVolts: 160,
    /** Re-forming: shares of the rated volts, the most that flows in, watts of the resistor over its worst, how long. Usual. */
    reformShares: [0.25, 0.5, 0.75, 0.9, 1] as readonly number[],
    reformMostAmps: 0.0125,
    reformWattsRatio: 2,
    reformPatienceSeconds: 1800,
    reformPatienceFromShare: 0.5,
    reformLastSeconds: 3600,
    reformMostRiseKelvin: 10,
    reformDrainOhms: 1000,
    reformRestSeconds: 86_400,
    /** What a salvaged part must still read, and of which age its hours need not be known. */
    salvage: { mostEsrRatio: 1.2, leastCapacitanceRatio: 0.9, mostVoltageLossRatio: 0.03, unknownHoursYears: 3 },
    /** Hours a day of a set whose hours nobody knows. */
    usualHoursPerDay: 8,
    /** A can weighs so much a cubic metre, within so much; below the last a small can sits in a big sleeve. Rough. */
    canKilogramsPerCubicMetre: 1500,
    massToleranceRatio: 0.15,
    hollowBelowRatio: 0.75,
    sizeToleranceMetres: 0.5e-3,
    capacitanceToleranceRatio: 0.2,
    /** ESR of one lot scatters less. Rough. */
    mostEsrVariation: 0.08,
  },
  replacement: {
    /** At which temperature capacitors work under load, where ripple is shared; least mains; switching of a primary. Usual. */
    ambientUnderLoadCelsius: 60,
    lowMainsRatio: 0.9,
    bulkSwitchingHertz: 65e3,
    usualSwitchingHertz: 65e3,
    /** A new part may have so much more than the old one's catalogue maximum. */
    mostOldEsrRatio: 1.25,
    /** ESR that old linear regulators run with, below that they may oscillate. Rough; the sheet decides. */
    linearLeastOhms: 0.05,
    linearMostOhms: 5,
    /** Ways between bodies, from hot ones, under a lid, over a vent by diameter; house rules, rough. */
    bodyClearanceMetres: 0.5e-3,
    /** Reinforced and basic insulation at 230 V as supplies are usually built; and what heat asks for. Usual. */
    clearances: { secondaryMetres: 6.4e-3, earthedMetres: 4e-3, hotMetres: 5e-3 },
    lidClearanceMetres: 1e-3,
    ventRoomMetres: [
      [16e-3, 2e-3],
      [35e-3, 3e-3],
    ] as readonly (readonly [upToDiameterMetres: number, roomMetres: number])[],
    mostSearchedMetres: 0.1,
    /** Highest mains over the nominal, and margins of rated volts where the table of positions has others. */
    highMainsRatio: 1.1,
    controlSupplyVoltsRatio: 1.5,
    /** Air where nothing says anything, and the class of a part that does not say. */
    assumedAmbientCelsius: 60,
    assumedClassCelsius: 105,
    /** A part dried where both were read of it off the board. */
    driedBelowRatio: 0.85,
    driedFromEsrRatio: 2,
    /** A part is as new where both were read of it off the board. */
    soundAboveRatio: 0.92,
    soundBelowEsrRatio: 1.3,
    /** Gap of the mains that outputs stand through, and what is usual around a bulk. Rough. */
    holdUpSeconds: 10e-3,
    usualEfficiencyRatio: 0.85,
    valleyShare: 0.9,
    usualSourceOhms: 0.7,
    usualThermistorOhms: 5,
    /** A thermistor that is still hot has so much of its cold ohms. */
    hotThermistorRatio: 1 / 12,
    /** What a thermistor takes in at once, by its disc. Rough, the lower ends. */
    thermistorJoules: [
      [5e-3, 4],
      [9e-3, 15],
      [15e-3, 60],
    ] as readonly (readonly [discMetres: number, joules: number])[],
    /** Rated life of parts whose sheet nobody has, by class of endurance. Rough. */
    assumedLifeHours: { gp: 2000, lowz: 3000, ultra: 4000, polymer: 5000, hybrid: 5000 },
    /** Endurance of usual new low-impedance parts; what a return takes beside the bench time; a supply bought whole. Rough. */
    newLifeHours: 5000,
    returnHandlingMinutes: 15,
    swapMinutes: 20,
    swapReturnRatio: 0.03,
    /** A can laid flat: leads bent at so many of their diameters, at least so far from the body, over the board; what they add. */
    bendRadii: 1.5,
    leadDiameterMetres: 0.8e-3,
    leastBendMetres: 2e-3,
    laidGapMetres: 0.5e-3,
    henrysPerLaidMetre: 1e-6,
    /** Leads are formed by so much every day. */
    pitchFormedMetres: 2.5e-3,
    /** A rating wants so much over the current that is reckoned; below it warns. */
    rippleMarginRatio: 1.25,
    /** Sheets of solid polymer allow their surface 10 to 20 K. Rough. */
    polymerCoreRiseKelvin: 10,
    /** What a regulation may lose of its phase lead, where its crossover usually lies, and from where a choke rings. Rough. */
    loop: { warnDegrees: 15, rejectDegrees: 30, crossoverShare: 1 / 15, couplerCrossoverHertz: 5000, peakingQ: 3 },
    /** Kelvin for ten times the life of a solid polymer, as sheets have it. */
    polymerDecadeKelvin: 20,
    /** Pins bend so far. */
    pitchToleranceMetres: 0.6e-3,
    /** Can sizes are nominal; a tenth of a millimetre over is not a misfit. */
    sizeToleranceMetres: 0.1e-3,
    /** How far a near miss may lie from the value and the volts that are asked for. */
    /** A usual control IC, its start-up resistor, and how long its watchdogs wait. Rough. */
    control: {
      ...{ startOhms: 1e6, quiescentAmps: 30e-6, startVolts: 16, stopVolts: 9 },
      ...{ operatingAmps: 5e-3, takeoverSeconds: 15e-3, longestStartSeconds: 3 },
    },
    /** Half a digit of what a sheet prints. */
    printedRatio: 0.005,
    /** One of ten has failed at the computed life; Weibull's slope of capacitors that dry. Rough. */
    lifeFailedRatio: 0.1,
    lifeShape: 4,
    nearMiss: { leastRatio: 0.4, mostRatio: 2.6, leastVoltsRatio: 0.6, sizeRatio: 1.3, esrRatio: 2, rippleRatio: 0.5 },
    /** From here on a rating is far more than the place was made for: a larger can, more ESR. */
    muchHigherVoltsRatio: 3,
    /** Stripe and mark this near to each other point the same way. */
    sameDirectionDegrees: 45,
  },
  ripple: {
    /** Where converters give up: shares of the full bus (usual, least, most), or volts whatever the mains (usual, least). */
    dropout: {
      flyback: { isShare: false, values: [90, 80, 0] },
      flyback_with_standby: { isShare: false, values: [90, 80, 0] },
      pfc_resonant_with_standby: { isShare: true, values: [0.82, 0.77, 0.85] },
      pfc_forward_with_standby: { isShare: true, values: [0.75, 0.72, 0.78] },
      forward_or_half_bridge: { isShare: true, values: [0.75, 0.72, 0.78] },
      self_oscillating: { isShare: false, values: [90, 80, 0] },
      push_pull: { isShare: true, values: [0.75, 0.72, 0.78] },
      series_dropper: { isShare: true, values: [0.55, 0.5, 0.6] },
      buck_board: { isShare: true, values: [0.55, 0.5, 0.6] },
      singleRangeRatio: 0.55,
    } as {
      readonly [name in
        | "flyback"
        | "flyback_with_standby"
        | "pfc_resonant_with_standby"
        | "pfc_forward_with_standby"
        | "forward_or_half_bridge"
        | "self_oscillating"
        | "push_pull"
        | "series_dropper"
        | "buck_board"]: { readonly isShare: boolean; readonly values: readonly [number, number, number] };
    } & { readonly singleRangeRatio: number },
    /** Ripple that solid polymer bears below a frequency, relative to 100 kHz and above; as sheets step it, rough. */
    polymerMultipliers: [
      [1e3, 0.05],
      [10e3, 0.3],
      [100e3, 0.7],
    ] as readonly (readonly [belowHertz: number, ratio: number])[],
    /** Inductance of a can with its leads: by the pitch, between a small radial's and a large snap-in's. Rough. */
    henrysPerPitchMetre: 2.5e-6,
    leastCanHenrys: 3e-9,
    mostCanHenrys: 22e-9,
    /** At so many times a new one's ESR the cold thickens what is left within so many kelvin. Rough. */
    wornFrom: 5,
    wornColdKelvin: 15,
    /** Pitch of usual radial cans up to a diameter, where nobody measured it. */
    usualPitchMetres: [
      [5.5e-3, 2e-3],
      [6.8e-3, 2.5e-3],
      [8.5e-3, 3.5e-3],
      [13.5e-3, 5e-3],
      [19e-3, 7.5e-3],
      [Infinity, 10e-3],
    ] as readonly (readonly [upToMetres: number, pitchMetres: number])[],
    /** No switch of these supplies is quicker; edges of no length would drive any inductance to infinite volts. */
    leastEdgeSeconds: 5e-9,
    /** What a linear regulator takes off the switching ripple of its feed, decibels: typical, least, most. Rough. */
    regulatorRejectionDecibels: [30, 15, 50],
    /** A catalogue says the most that a part may have; new ones typically have this share of it. */
    typicalOfCatalogueRatio: 0.7,
    /** A renewed part must take this share off the ripple to be worth naming. */
    worthRenewingRatio: 0.98,
  },
  proof: {
    /** A resistance is told from this share of the promise, from so many amperes and from so many steps of a meter on. */
    leastTellingShare: 0.1,
    leastTellingAmps: 0.2,
    tellingSteps: 3,
    /** Ripple as new parts leave it, and no prediction is sharper; but never above so many times the limit. */
    asNewMarginRatio: 1.25,
    mostOverLimitRatio: 2,
  },
  /** Runs that the instruments drive. Bench practice. */
  runs: {
    /** After a step rails may dip and loads take their time. */
    settleSeconds: 3,
    /** A rise of heat is told over so long. */
    riseWindowSeconds: 30,
    /** A load that draws this much beside what it was told is not believed. */
    loadErrorRatio: 0.1,
    loadErrorAmps: 0.05,
    /** No supply gives more than it takes; below so many watts neither meter is sharp enough to say. */
    leastInputShare: 0.97,
    leastTellingWatts: 5,
    emptiedVolts: 1,
    /** Ripple above its limit is measured and told; above this share of the rail something comes apart. */
    rippleStopRatio: 0.1,
    sampleSeconds: 1,
    burnInSampleSeconds: 5,
    /** Drawn above the promise by more than this is a fault. */
    overPromiseRatio: 1.1,
    overloadRatio: 1.1,
    /** What a poor supply makes of its watts, and what it draws beside them. */
    poorEfficiencyRatio: 0.6,
    idleWatts: 10,
    /** What the instruments wait longer by themselves than a run that lost its server may be without it. */
    timeoutMarginSeconds: 30,
  },
  casebook: {
    /** What another shown cause brings about this often is not told of a fault. */
    otherExplainsFromRatio: 0.3,
    /** Where nobody said how long a device runs a day, its age counts so. */
    usualHoursPerDay: 8,
    /** A place stands out against all models from this chance of coming about by itself on, after allowing for how many were looked at. */
    standsOutBelow: 0.05,
    /** Draws by which two lives are compared. */
    lifeDraws: 2000,
  },
  job: {
    /** A reading that lies this many times above or below the middle of its family lies apart. Rough. */
    apartFactor: 1.8,
    /** So many units must have been read for that. */
    fewestAlike: 3,
    /** Less of the switching ripple than this may stay unexplained: no prediction is that sharp. */
    toldUnexplainedRatio: 0.2,
  },
  /** Practice supplies. Conventions of the score, and of what a part that was shown, cleared, never read or seen cracked counts for. */
  practice: {
    shownRatio: 0.97,
    clearedRatio: 0.02,
    unreadRatio: 0.04,
    crackedRatio: 0.93,
    /** What counts how much: the squared and the logarithmic score of the last word, and the minutes. */
    weights: { brier: 0.4, log: 0.2, time: 0.4 },
    /** Lifting a lead of a part that was as good as known told nothing. */
    knownRatio: 0.08,
    /** A rail counts as proved at this share of what it promises. */
    provedLoadRatio: 0.8,
    /** A new part stands in for the old one from so much of its capacitance to so much. */
    fittedFromRatio: 0.8,
    fittedToRatio: 1.5,
  },
} as const;
