package org.zestyporter.core;

/**
 * What random tests begin with. {@code ./porter test} always takes the same, so that it says the
 * same of the same code; {@code ./porter search} takes a fresh one, prints it, and tries longer.
 */
public final class Seeds {
  public static final String SEED = "${porter.seed}";

  /** How many times as many tries as usual. */
  public static final int MORE = ${porter.more};

  private Seeds() {}
}
