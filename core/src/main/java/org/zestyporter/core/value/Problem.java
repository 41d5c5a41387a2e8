package org.zestyporter.core.value;

/**
 * Why a value can't be taken as it is.
 *
 * <p>Travels in the place of the value it stands for, so that computing needs no exceptions.
 *
 * @param code what kind of problem
 * @param value the offending value as text
 * @param reason in the user's words, without the value and without a full stop
 */
public record Problem(ProblemCode code, String value, String reason) {}
