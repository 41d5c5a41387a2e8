package org.zestyporter.demo;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;

/**
 * A vessel, as the office knows it or as a file speaks of it.
 *
 * @param kind name of the vessel type
 * @param feet length over all in feet, a multiple of a quarter
 * @param beamFeet greatest width in feet, a multiple of a quarter
 * @param berth label of the berth; null if it has none
 * @param insuredUntil null if it is not known
 * @param notes null if there are none
 */
record Vessel(
    String registration,
    String name,
    String kind,
    BigDecimal feet,
    BigDecimal beamFeet,
    String owner,
    String berth,
    LocalDate arrivedOn,
    LocalDate insuredUntil,
    String notes) {

  private static final BigDecimal METRES = new BigDecimal("0.3048");

  /** A length in metres, to the centimetre. */
  static BigDecimal metres(BigDecimal feet) {
    return feet.multiply(METRES).setScale(2, RoundingMode.HALF_UP);
  }

  Vessel arriving(LocalDate on, LocalDate insured, String atBerth, BigDecimal length) {
    return new Vessel(
        registration, name, kind, length, beamFeet, owner, atBerth, on, insured, notes);
  }
}
