/** The application's tables: metadata, set-based look-up, bulk writing; one class per dialect. */
package org.zestyporter.core.database;
