/**
 * The form of an application for databases: one short class per dialect, which overrides only what
 * differs.
 */
package org.zestyporter.core.application.jdbc;
