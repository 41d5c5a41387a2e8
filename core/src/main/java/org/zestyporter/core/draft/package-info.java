/** Proposals for a plan, with their evidence, from names, values and memory. */
package org.zestyporter.core.draft;
