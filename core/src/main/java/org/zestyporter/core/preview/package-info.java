/** What an opened plan would do, shown on real values while it is being made. */
package org.zestyporter.core.preview;
