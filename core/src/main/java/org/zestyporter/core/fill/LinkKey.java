package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Comparison;

/**
 * How a link looks up records of a table.
 *
 * @param table what plans call the table
 * @param fields the fields that it looks in
 * @param together how many of them, from the first, stand together in the link's own value
 * @param ignoring what is ignored when values are compared
 */
public record LinkKey(
    String table, List<String> fields, int together, List<Comparison.Ignore> ignoring) {

  static LinkKey of(String table, List<String> fields, Origin.Link link) {
    return new LinkKey(table, fields, link.together().size(), link.ignoring());
  }
}
