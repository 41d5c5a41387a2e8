/** Rehearsal and run: one pipeline with two last stages; outcomes; the ledger. */
package org.zestyporter.core.run;
