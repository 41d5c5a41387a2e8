package org.zestyporter.core.application;

/**
 * What an application is able to do.
 *
 * @param transactions what is written can be taken back until it is committed
 * @param sets records are written many at a time
 * @param keysBeforehand the keys that it will give new records can be had before they are written
 * @param trial a run can be tried to its end and rolled back
 */
public record Abilities(
    boolean transactions, boolean sets, boolean keysBeforehand, boolean trial) {}
