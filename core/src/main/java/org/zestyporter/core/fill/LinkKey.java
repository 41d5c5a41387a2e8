package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.value.Comparison;

/**
 * How a link looks up records of a table.
 *
 * @param table what plans call the table
 * @param fields the fields that it looks in
 * @param ignoring what is ignored when values are compared
 */
public record LinkKey(String table, List<String> fields, List<Comparison.Ignore> ignoring) {}
