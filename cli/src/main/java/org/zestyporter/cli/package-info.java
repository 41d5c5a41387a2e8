/** The command line. Commands other than serve and demo work on the core alone. */
package org.zestyporter.cli;
