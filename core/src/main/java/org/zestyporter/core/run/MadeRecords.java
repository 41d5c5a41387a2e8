package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.value.PorterException;

/** Tells which records the rows of a source may make themselves, for links that look for them. */
final class MadeRecords {
  /** More of them are not told apart: any may be made. */
  private static final int MOST = 200_000;

  private final OpenedPlan opened;

  MadeRecords(OpenedPlan opened) {
    this.opened = opened;
  }

  /** True if rows may make records that are looked up so. */
  boolean isMade(LinkKey key) {
    return opened.plan().destinations().stream().anyMatch(d -> by(d, key));
  }

  /** True if rows that go to a destination may make records that are looked up so. */
  boolean by(Destination destination, LinkKey key) {
    return isOf(destination, key.table())
        && destination.policies().onNone() == Policies.OnNone.ADD
        && key.fields().stream()
            .allMatch(
                field ->
                    destination.fills().stream().anyMatch(f -> f.field().equalsIgnoreCase(field)));
  }

  /** No record is made of a table that is gone. */
  private boolean isOf(Destination destination, String table) {
    try {
      return opened.table(destination).name().equals(table);
    } catch (PorterException e) {
      return false;
    }
  }

  /**
   * What the rows' own records will be found by: the values of the key's fields in each.
   *
   * @return null if they are too many to be told apart, or nobody can tell which rows make any
   */
  @Nullable Set<List<Object>> values(LinkKey key) {
    Set<List<Object>> values = new HashSet<>();
    try {
      for (Destination destination : opened.plan().destinations()) {
        if (by(destination, key) && !add(destination, key, values)) {
          return null;
        }
      }
      return values;
    } catch (PorterException e) {
      // what is wrong there is a matter of that destination
      return null;
    }
  }

  private boolean add(Destination destination, LinkKey key, Set<List<Object>> values) {
    TableInfo table = opened.table(destination);
    List<CompiledFill> fills = new ArrayList<>();
    for (FieldInfo field : table.fields(key.fields())) {
      destination.fills().stream()
          .filter(f -> f.field().equalsIgnoreCase(field.name()))
          .forEach(f -> fills.add(opened.compileAlone(destination, f)));
    }
    Selection selection = opened.selection(destination);
    SourceTable source = opened.source();
    for (int i = 0; i < source.batches(); i++) {
      Batch batch = selection.of(source.batch(i), null).batch();
      BatchRow row = new BatchRow(batch, opened.context());
      for (int r = 0; r < batch.rows(); r++) {
        List<Object> own = new ArrayList<>(fills.size());
        for (CompiledFill fill : fills) {
          Object value = fill.compute(row.at(r)).value();
          own.add(value instanceof Awaited || value instanceof Pending ? null : value);
        }
        if (values.add(own) && values.size() > MOST) {
          return false;
        }
      }
    }
    return true;
  }
}
