/**
 * What is written into: tables, look-ups, write sessions, and what an application is able to do.
 */
package org.zestyporter.core.application;
