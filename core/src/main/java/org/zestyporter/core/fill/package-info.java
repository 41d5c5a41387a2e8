/** Origins and steps compiled for a plan: pure functions from cells to values. */
package org.zestyporter.core.fill;
