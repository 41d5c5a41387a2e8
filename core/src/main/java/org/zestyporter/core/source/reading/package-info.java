/** How a source is read, as a plan says it, and what was found of it. */
package org.zestyporter.core.source.reading;
