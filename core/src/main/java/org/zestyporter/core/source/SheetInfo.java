package org.zestyporter.core.source;

/** A sheet of a workbook. */
public record SheetInfo(String name, boolean hidden) {}
