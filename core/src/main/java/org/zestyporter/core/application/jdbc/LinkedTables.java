package org.zestyporter.core.application.jdbc;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.value.PorterException;

/** The tables of a database with links that it does not declare; as far as they can be ones. */
final class LinkedTables {
  private final List<ToldLink> links;
  private final Function<String, TableInfo> declared;

  /** By the table as it is declared. */
  private final Map<TableInfo, TableInfo> linked = new ConcurrentHashMap<>();

  /**
   * @param declared gives a table as the database declares it
   */
  LinkedTables(List<ToldLink> links, Function<String, TableInfo> declared) {
    this.links = links;
    this.declared = declared;
  }

  List<ToldLink> links() {
    return links;
  }

  TableInfo table(String name) {
    TableInfo table = declared.apply(name);
    return links.stream().anyMatch(l -> l.isOf(table))
        ? linked.computeIfAbsent(table, this::linked)
        : table;
  }

  private TableInfo linked(TableInfo table) {
    TableInfo linked = table;
    for (ToldLink link : links) {
      try {
        if (link.isOf(table)) {
          linked = linked.with(link.field(), link.link(table, declared.apply(link.to())));
        }
      } catch (PorterException e) {
        // who checks the plan that tells it is told
      }
    }
    return linked;
  }

  void forget() {
    linked.clear();
  }
}
